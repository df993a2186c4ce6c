import { type CurrentRecording, medianOf, type Stretch } from "../../signal/currentRecording";
import { peaksOf, samplesForLines, spectrumOf } from "../../signal/spectrum";
import { fastestHumpHz } from "../rhythm/humpRhythm";
import { removeAliases } from "./aliases";
import { type FoundChopping, findChopping, type KnownTurn } from "./choppingLine";

/** A module's PWM, found in a motor's current and removed from it. */
export interface Chopping {
  readonly hz: number;
  readonly peakToPeakAmps: number;
}

export interface WithoutPwm {
  readonly trace: CurrentRecording;
  readonly chopping: Chopping | null;
  /** Two rhythms of which either may be the PWM: both are clock-steady, and they are not orders of one turn. */
  readonly rivals: readonly [number, number] | null;
}

/**
 * Finds a module's PWM: a line above the highest possible ripple frequency, or a clock-steady line beside a rhythm
 * that drifts as a motor's does.
 * @param given hertz, if known
 * @param turn what is known of the turn; then two rhythms belong together only as orders of that turn
 */
export function withoutChopping(
  trace: CurrentRecording,
  stretch: Stretch,
  given?: number,
  turn: KnownTurn = null,
): WithoutPwm {
  const found: FoundChopping = given === undefined ? findChopping(trace, stretch, turn) : { hz: given };
  if (!("hz" in found) || found.hz >= trace.rateHz / 2)
    return { trace, chopping: null, rivals: "rivals" in found ? found.rivals : null };
  const hz = given === undefined ? found.hz : refined(trace, stretch, given);
  const periodSamples = trace.rateHz / hz;
  const amps =
    hz > fastestHumpHz && periodSamples >= 2.5
      ? averagedOver(trace.amps, periodSamples)
      : withoutPeriod(trace.amps, periodSamples, trace.rateHz);
  if (hz > fastestHumpHz) removeAliases({ ...trace, amps }, stretch, hz);
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = stretch.from; i < stretch.to; i++) {
    const off = (trace.amps[i] as number) - (amps[i] as number);
    if (off < low) low = off;
    if (off > high) high = off;
  }
  return {
    trace: { ...trace, amps },
    chopping: { hz, peakToPeakAmps: Math.max(0, high - low) },
    rivals: null,
  };
}

/** The mean over one period around each sample, which removes a period and all its harmonics. */
function averagedOver(amps: Float32Array, period: number): Float32Array {
  const half = period / 2;
  const whole = Math.floor(half - 0.5);
  const edge = half - 0.5 - whole;
  const out = new Float32Array(amps.length);
  let sum = 0;
  for (let i = -whole; i <= whole; i++) sum += amps[clamped(i, amps.length)] as number;
  for (let i = 0; i < amps.length; i++) {
    const ends =
      (amps[clamped(i - whole - 1, amps.length)] as number) +
      (amps[clamped(i + whole + 1, amps.length)] as number);
    out[i] = (sum + edge * ends) / (2 * whole + 1 + 2 * edge);
    sum +=
      (amps[clamped(i + whole + 1, amps.length)] as number) -
      (amps[clamped(i - whole, amps.length)] as number);
  }
  return out;
}

const clamped = (at: number, length: number): number => Math.max(0, Math.min(length - 1, at));

/** Points at which one PWM period is sampled. */
const phasePoints = 64;
/**
 * Length of the blocks in which the PWM's shape is fitted again, in seconds, because it changes with the duty. Shorter
 * blocks would absorb ripple close to the PWM frequency.
 */
const blockSeconds = 1;
/** Fewest PWM periods in a block. */
const leastPeriods = 60;

/** Largest relative error of a PWM frequency that was entered by hand. */
const givenWithin = 0.003;
/** Height of a line, as a multiple of the median height, from which it counts. */
const standsOut = 12;

function refined({ amps, rateHz }: CurrentRecording, stretch: Stretch, given: number): number {
  const count = samplesForLines(stretch);
  if (count === null) return given;
  const spectrum = spectrumOf(amps, rateHz, { from: stretch.from, count });
  const reach = Math.max(givenWithin * given, 1.5 * spectrum.binHz);
  const [line] = peaksOf(spectrum, given - reach, given + reach, 1);
  return line && line.magnitude > standsOut * medianOf(spectrum.magnitude) ? line.hz : given;
}

/** Removes the mean shape of a period from the recording, block by block, so that it may change with the duty. */
function withoutPeriod(amps: Float32Array, period: number, rateHz: number): Float32Array {
  const out = new Float32Array(amps.length);
  const block = Math.max(256, Math.round(Math.max(blockSeconds * rateHz, leastPeriods * period)));
  const blocks = Math.max(1, Math.floor(amps.length / block));
  for (let at = 0; at < blocks; at++) {
    const [start, end] = [at * block, at === blocks - 1 ? amps.length : (at + 1) * block];
    const sums = new Float64Array(phasePoints);
    const hits = new Float64Array(phasePoints);
    let mean = 0;
    for (let i = start; i < end; i++) mean += (amps[i] as number) / (end - start);
    for (let i = start; i < end; i++) {
      const place = ((i / period) % 1) * phasePoints;
      const low = Math.floor(place);
      const share = place - low;
      const value = (amps[i] as number) - mean;
      sums[low] = (sums[low] as number) + (1 - share) * value;
      hits[low] = (hits[low] as number) + 1 - share;
      const next = (low + 1) % phasePoints;
      sums[next] = (sums[next] as number) + share * value;
      hits[next] = (hits[next] as number) + share;
    }
    const shape = sums.map((sum, i) => ((hits[i] as number) > 0 ? sum / (hits[i] as number) : 0));
    for (let i = start; i < end; i++) {
      const place = ((i / period) % 1) * phasePoints;
      const low = Math.floor(place);
      const share = place - low;
      out[i] =
        (amps[i] as number) -
        (1 - share) * (shape[low] as number) -
        share * (shape[(low + 1) % phasePoints] as number);
    }
  }
  return out;
}
