import { type CurrentTrace, medianOf, rangeOf, type Stretch } from "./currentTrace";
import { fastestHumpHz, slowestHumpHz } from "./humpRhythm";
import { lineJitter } from "./lineJitter";
import { peaksOf, spectrumOf } from "./spectrum";

/** A control's chopping, found on a motor's current and taken out of it. */
export interface Chopping {
  readonly hz: number;
  readonly peakToPeakAmps: number;
}

export interface Unchopped {
  readonly trace: CurrentTrace;
  readonly chopping: Chopping | null;
  /** Two rhythms of which either may be the chopping: both keep time, and they have no turn in common. */
  readonly rivals: readonly [number, number] | null;
}

const mostSamples = 2 ** 18;
const standsOut = 12;
/** A clock's phase strays by less than this over the stretch, radians. */
const clockStrays = 0.18;
/** A motor's strays by more, and in time by so many times what the clock does. */
const motorStrays = 0.3;
const timesStray = 4;
/** A clock's line trembles in time no more than noise makes it (see `lineJitter`), a motor's by more than chance. */
const clockTrembles = 1.5;
const surelyTrembles = 3;
const parts = 8;
/** A second rhythm this tall, as a share of the tallest, counts. */
const secondShare = 0.12;
const mostPeaks = 24;
/** A clock's line stands alone: so many bins beside it hold nothing above this share of it; a drifting one is a ridge. */
const [besideFrom, besideTo] = [4, 40];
const besideShare = 0.35;
const rivalShare = 0.3;
/** Humps a turn at most: the highest order that may be met. */
const mostOrders = 48;
/** Fewer come to no turn. */
const fewestHumps = 7.5;
/** Frequencies are known to this share of a bin. */
const sameWithin = 0.015;
const nearlyWithin = 0.25;

/**
 * Finds the chopping of a control: a line above what humps can reach, or a line that keeps time like a clock
 * beside a rhythm that drifts as a motor does.
 * @param given hertz, where known
 * @param perTurn humps a turn, where known: two rhythms then belong together only as orders of that
 */
export function withoutChopping(
  trace: CurrentTrace,
  stretch: Stretch,
  given?: number,
  perTurn: number | null = null,
): Unchopped {
  const found: Found = given === undefined ? findChopping(trace, stretch, perTurn) : { hz: given };
  if (!("hz" in found) || found.hz >= trace.rateHz / 2)
    return { trace, chopping: null, rivals: "rivals" in found ? found.rivals : null };
  const { hz } = found;
  const periodSamples = trace.rateHz / hz;
  const amps =
    hz > fastestHumpHz && periodSamples >= 2.5
      ? averagedOver(trace.amps, periodSamples)
      : withoutPeriod(trace.amps, periodSamples);
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

type Found =
  | { readonly hz: number }
  | { readonly rivals: readonly [number, number] }
  | { readonly none: true };

function findChopping({ amps, rateHz }: CurrentTrace, { from, to }: Stretch, perTurn: number | null): Found {
  const count = Math.min(mostSamples, 2 ** Math.floor(Math.log2(Math.max(2, to - from))));
  if (count < 1024) return { none: true };
  const spectrum = spectrumOf(amps, rateHz, { from, count });
  const { binHz } = spectrum;
  const median = medianOf(spectrum.magnitude);
  const peaks = peaksOf(spectrum, slowestHumpHz, rateHz / 2, mostPeaks).filter(
    ({ magnitude }) => magnitude > standsOut * median,
  );
  const tallest = peaks[0]?.magnitude ?? 0;
  const strays = (hz: number): number =>
    Math.sqrt(-2 * Math.log(Math.min(1, clockShare(amps, rateHz, from, count, hz))));
  const above = peaks.find(({ hz, magnitude }) => hz > fastestHumpHz && magnitude > secondShare * tallest);
  if (above && strays(above.hz) < 2 * motorStrays) return { hz: above.hz };
  const strong = peaks
    .filter(({ magnitude, hz }) => magnitude > secondShare * tallest && hz <= fastestHumpHz)
    .map(({ hz, magnitude }) => ({ hz, magnitude, radians: strays(hz) }));
  const standsAlone = (hz: number, beside: readonly { readonly hz: number }[] = []): boolean => {
    const bin = Math.round(hz / spectrum.binHz);
    const isOther = (at: number): boolean =>
      beside.some((other) => Math.abs(at - other.hz / spectrum.binHz) < besideFrom);
    for (let off = besideFrom; off <= besideTo; off++)
      for (const at of [bin - off, bin + off])
        if ((spectrum.magnitude[at] ?? 0) > besideShare * (spectrum.magnitude[bin] as number) && !isOther(at))
          return false;
    return true;
  };
  const alone = strong.filter(
    ({ hz, magnitude, radians }) =>
      radians < clockStrays &&
      standsAlone(hz) &&
      // A harmonic goes with the line it belongs to.
      !strong.some((base) => base.hz < hz && base.magnitude > magnitude && isMultiple(base.hz, hz, binHz)),
  );
  // All that turns with the shaft strays alike in time, whatever its order; a clock does not stray.
  const besideOne = (others: readonly { readonly hz: number; readonly radians: number }[]) =>
    alone.filter(({ hz, radians }) =>
      others.some(
        (other) =>
          other.radians > motorStrays &&
          other.radians / other.hz > (timesStray * radians) / hz &&
          !isMultiple(other.hz, hz, binHz),
      ),
    );
  // What drifts far is a low ridge over the whole stretch, yet tall in each short part of it: a clock can hide it.
  const ridges = () =>
    ridgesOf(amps, rateHz, from, count)
      .filter((ridge) => strong.every(({ hz }) => Math.abs(hz - ridge.hz) > ridgeBins * ridge.binHz))
      .slice(0, mostRidges)
      .map(({ hz }) => ({ hz, radians: strays(hz) }));
  const besideLines = besideOne(strong);
  const hides = strong.length === 1 && alone.length === 1;
  const clocks = hides ? besideOne(ridges()) : besideLines;
  if (clocks.length > 0) return { hz: Math.min(...clocks.map(({ hz }) => hz)) };
  // At a steady speed too humps come each a little early or late; a clock does not.
  const told = strong.map((line) => ({ ...line, jitter: lineJitter(amps, rateHz, from, count, line.hz) }));
  const trembling = told.filter(({ jitter }) => jitter && jitter.deviations > surelyTrembles);
  // Bad bars make a comb of lines, of which any fits some order of the turn: with a clock all others are the humps' own, its
  // own, or the turn's mark far below.
  const explainsTheRest = ({ hz }: { readonly hz: number }): boolean =>
    told.every(
      (other) =>
        isMultiple(hz, other.hz, binHz) ||
        trembling.some(
          (humps) =>
            isMultiple(humps.hz, other.hz, binHz) ||
            other.hz * fewestHumps < humps.hz ||
            Math.abs(other.hz - humps.hz) < 2 * parts * binHz,
        ),
    );
  const keeping = told.filter(
    (line) =>
      line.jitter &&
      line.jitter.ratio < clockTrembles &&
      line.jitter.deviations < surelyTrembles &&
      // Beside a line of the motor the parts cannot part the two, and what strays is their beat.
      (line.radians < clockStrays ||
        trembling.some(({ hz }) => Math.abs(hz - line.hz) < 2 * parts * binHz)) &&
      standsAlone(line.hz, trembling) &&
      trembling.length > 0 &&
      trembling.every(({ hz }) => !isMultiple(hz, line.hz, binHz)) &&
      (perTurn === null
        ? explainsTheRest(line)
        : trembling.every(({ hz }) => !turnTogether(hz, line.hz, nearlyWithin * binHz, perTurn))),
  );
  if (keeping.length > 0) return { hz: Math.min(...keeping.map(({ hz }) => hz)) };
  const [first, second] = peaks.filter(
    ({ magnitude, hz }) => magnitude > rivalShare * tallest && hz <= fastestHumpHz,
  );
  if (!first || !second || isMultiple(first.hz, second.hz, binHz)) return { none: true };
  const steady = strong.every(({ radians }) => radians < clockStrays);
  // Where they stray a little, orders of a known turn are told by the nearest; of an unknown one any would fit.
  const together = turnTogether(
    first.hz,
    second.hz,
    steady ? sameWithin * binHz : nearlyWithin * binHz,
    perTurn,
  );
  const apart = standsAlone(first.hz, [second]) && strays(first.hz) < clockStrays;
  if (together || (!steady && !(perTurn !== null && apart))) return { none: true };
  return { rivals: [first.hz, second.hz] };
}

const ridgeSeconds = 0.15;
/** A ridge this many of its own bins from a line of the whole stretch is that line. */
const ridgeBins = 3;
const mostRidges = 4;

/** Rhythms that are tall in the mean of short parts' spectra. */
function ridgesOf(
  amps: Float32Array,
  rateHz: number,
  from: number,
  count: number,
): { readonly hz: number; readonly binHz: number }[] {
  const length = Math.min(count, 2 ** Math.floor(Math.log2(Math.max(256, ridgeSeconds * rateHz))));
  const steps = Math.max(1, Math.floor((2 * count) / length) - 1);
  const magnitude = new Float64Array(length / 2);
  let binHz = rateHz / length;
  for (let step = 0; step < steps; step++) {
    const own = spectrumOf(amps, rateHz, { from: from + (step * length) / 2, count: length });
    binHz = own.binHz;
    for (let bin = 0; bin < magnitude.length; bin++)
      magnitude[bin] = (magnitude[bin] as number) + (own.magnitude[bin] as number) / steps;
  }
  const peaks = peaksOf({ magnitude, binHz }, slowestHumpHz, fastestHumpHz, mostPeaks);
  const tallest = peaks[0]?.magnitude ?? 0;
  return peaks
    .filter((peak) => peak.magnitude > secondShare * tallest && peak.hz < rateHz / 2)
    .map(({ hz }) => ({ hz, binHz }));
}

/** True where one rhythm is a whole multiple of the other, to the half bin its drift may move it. */
function isMultiple(one: number, other: number, binHz: number): boolean {
  const [low, high] = one < other ? [one, other] : [other, one];
  const times = Math.round(high / low);
  return Math.abs(high - times * low) < 0.5 * binHz * times;
}

/**
 * True where two rhythms can be orders of one turn: both whole multiples of some common frequency, and where humps a turn
 * are known one of them that many.
 */
function turnTogether(first: number, second: number, within: number, perTurn: number | null): boolean {
  const belongs = (humps: number, other: number, order: number): boolean => {
    const turn = humps / order;
    return Math.abs(other - Math.round(other / turn) * turn) < within * (1 + other / humps);
  };
  if (perTurn !== null) return belongs(first, second, perTurn) || belongs(second, first, perTurn);
  const [low, high] = first < second ? [first, second] : [second, first];
  for (let order = 1; order <= mostOrders; order++) if (belongs(low, high, order)) return true;
  return false;
}

/** How much of a line's parts adds up over the whole: near 1 for a clock, little where the rhythm drifts. */
function clockShare(amps: Float32Array, rateHz: number, from: number, count: number, hz: number): number {
  const length = Math.floor(count / parts);
  const { mean } = rangeOf(amps, { from, to: from + count });
  let [re, im, sizes] = [0, 0, 0];
  for (let part = 0; part < parts; part++) {
    let [a, b] = [0, 0];
    for (let i = 0; i < length; i++) {
      const at = from + part * length + i;
      const angle = (2 * Math.PI * hz * (part * length + i)) / rateHz;
      const weighed = ((amps[at] as number) - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length));
      a += weighed * Math.cos(angle);
      b -= weighed * Math.sin(angle);
    }
    re += a;
    im += b;
    sizes += Math.hypot(a, b);
  }
  return Math.hypot(re, im) / Math.max(1e-300, sizes);
}

/** The mean over one period about each sample: a period and all its harmonics vanish. */
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

const phasePoints = 64;
const periodsPerBlock = 60;

/** Takes the mean shape of a period out of the trace, block by block, so that it may change with the duty. */
function withoutPeriod(amps: Float32Array, period: number): Float32Array {
  const out = new Float32Array(amps.length);
  const block = Math.max(256, Math.round(periodsPerBlock * period));
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
