import { type CurrentRecording, medianOf, type Stretch } from "../../signal/currentRecording";
import { peaksOf, samplesForLines, spectrumOf } from "../../signal/spectrum";
import { fastestHumpHz, slowestHumpHz } from "../rhythm/humpRhythm";

/** Harmonics of the PWM that may be tall enough to alias into the ripple. */
const harmonics = [2, 3, 4, 5, 6, 7];
/** Height of an alias line, as a multiple of the median height, from which it counts. */
const standsOut = 8;
/** Error of the PWM frequency, in bins; a harmonic's is as many times larger as its order. */
const knownBins = 0.15;
/** Search range around an alias's expected place, in bins. */
const reachBins = 1.5;
/** Length of the blocks in which a line's height is taken again, in seconds, because it changes with the duty. */
const blockSeconds = 1;

/** The frequency at which one above half the sampling rate appears (the sampling theorem). */
const aliasOf = (hz: number, rateHz: number): number => Math.abs(hz - Math.round(hz / rateHz) * rateHz);

/**
 * Removes the aliases of a module's PWM. Sampled without a filter, harmonics above half the sampling rate fold back
 * among the ripples, as lines that are harmonics of nothing there. Changes the given amps.
 * @param choppingHz the PWM frequency, to a small fraction of a bin
 */
export function removeAliases(
  { amps, rateHz }: CurrentRecording,
  stretch: Stretch,
  choppingHz: number,
): void {
  const expected = harmonics
    .map((harmonic) => ({ harmonic, hz: aliasOf(harmonic * choppingHz, rateHz) }))
    .filter(
      ({ harmonic, hz }) => 2 * harmonic * choppingHz > rateHz && hz > slowestHumpHz && hz < fastestHumpHz,
    );
  const count = samplesForLines(stretch);
  if (expected.length === 0 || count === null) return;
  const spectrum = spectrumOf(amps, rateHz, { from: stretch.from, count });
  const floor = medianOf(spectrum.magnitude);
  for (const { harmonic, hz } of expected) {
    const reach = reachBins * spectrum.binHz;
    const [line] = peaksOf(spectrum, hz - reach, hz + reach, 1);
    if (!line || line.magnitude < standsOut * floor) continue;
    if (Math.abs(line.hz - hz) > harmonic * knownBins * spectrum.binHz) continue;
    removeLine(amps, rateHz, line.hz);
  }
}

/** A cosine and a sine by recurrence, because computing ten million of them one by one would take long. */
class Turning {
  cosine = 1;
  sine = 0;
  private readonly stepCosine: number;
  private readonly stepSine: number;

  /** @param turns step size, in turns */
  constructor(turns: number) {
    this.stepCosine = Math.cos(2 * Math.PI * turns);
    this.stepSine = Math.sin(2 * Math.PI * turns);
  }

  step(): void {
    const cosine = this.cosine * this.stepCosine - this.sine * this.stepSine;
    this.sine = this.sine * this.stepCosine + this.cosine * this.stepSine;
    this.cosine = cosine;
  }
}

/** Removes a sine whose amplitude and phase are fitted by least squares, block by block. */
function removeLine(amps: Float32Array, rateHz: number, hz: number): void {
  const blocks = Math.max(1, Math.floor(amps.length / (blockSeconds * rateHz)));
  for (let block = 0; block < blocks; block++) {
    const [start, end] = [block, block + 1].map((at) => Math.round((at * amps.length) / blocks)) as [
      number,
      number,
    ];
    const count = end - start;
    let mean = 0;
    for (let i = start; i < end; i++) mean += (amps[i] as number) / count;
    let [re, im, weight] = [0, 0, 0];
    const turning = new Turning(hz / rateHz);
    for (let i = start; i < end; i++) {
      // The window rejects the ripple's own lines.
      const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * (i - start)) / count);
      const value = ((amps[i] as number) - mean) * window;
      re += value * turning.cosine;
      im += value * turning.sine;
      weight += window;
      turning.step();
    }
    const [a, b] = [(2 * re) / weight, (2 * im) / weight];
    const again = new Turning(hz / rateHz);
    for (let i = start; i < end; i++) {
      amps[i] = (amps[i] as number) - a * again.cosine - b * again.sine;
      again.step();
    }
  }
}
