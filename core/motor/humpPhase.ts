import type { CurrentTrace, Stretch } from "./currentTrace";
import type { HumpRhythm } from "./humpRhythm";

/** Where in its humps a trace is: whole numbers at the hump tops, counted from the first sample. */
export interface HumpPhase {
  readonly from: number;
  /** Samples from one entry of `humps` to the next. */
  readonly block: number;
  /** Humps passed at the middle of each block. */
  readonly humps: Float64Array;
}

/**
 * Follows the humps' phase: the trace turned back by the rhythm known so far, averaged over some humps, and
 * the angle that remains unwound (quadrature demodulation, any signal-processing handbook).
 * @param smoothHumps humps averaged over; whole turns take what repeats once a turn out of it
 */
export function humpPhase(
  { amps, rateHz }: CurrentTrace,
  { from, to }: Stretch,
  rhythm: HumpRhythm,
  smoothHumps: number,
): HumpPhase {
  const fastest = rhythm.hz.reduce((best, hz) => Math.max(best, hz), 0);
  const block = Math.max(1, Math.floor(rateHz / fastest / 4));
  const count = Math.floor((to - from) / block);
  const [real, imaginary, base] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
  let mean = 0;
  for (let i = from; i < to; i++) mean += amps[i] as number;
  mean /= Math.max(1, to - from);
  let angle = 0;
  let humpSum = 0;
  const hzAt = rhythmAt(rhythm);
  for (let at = 0; at < count; at++) {
    const start = from + at * block;
    const hz = hzAt(start + block / 2);
    humpSum += hz;
    const step = (2 * Math.PI * hz) / rateHz;
    const [turnCos, turnSin] = [Math.cos(step), Math.sin(step)];
    let [cos, sin] = [Math.cos(angle + step / 2), Math.sin(angle + step / 2)];
    let [re, im] = [0, 0];
    for (let i = start; i < start + block; i++) {
      const value = (amps[i] as number) - mean;
      re += value * cos;
      im -= value * sin;
      [cos, sin] = [cos * turnCos - sin * turnSin, sin * turnCos + cos * turnSin];
    }
    real[at] = re;
    imaginary[at] = im;
    base[at] = angle + (step * block) / 2;
    angle += step * block;
  }
  const blocksPerHump = rateHz / (humpSum / Math.max(1, count)) / block;
  const width = Math.max(1, Math.round(smoothHumps * blocksPerHump));
  const [re, im] = [smoothed(smoothed(real, width), width), smoothed(smoothed(imaginary, width), width)];
  const humps = new Float64Array(count);
  let turns = 0;
  let last = 0;
  for (let at = 0; at < count; at++) {
    const own = Math.atan2(im[at] as number, re[at] as number);
    if (at > 0 && own - last > Math.PI) turns -= 1;
    if (at > 0 && last - own > Math.PI) turns += 1;
    last = own;
    humps[at] = ((base[at] as number) + own) / (2 * Math.PI) + turns;
  }
  return { from, block, humps };
}

/** The rhythm at any sample, straight between the stretches. */
function rhythmAt({ centres, hz }: HumpRhythm): (sample: number) => number {
  let at = 0;
  return (sample) => {
    while (at < centres.length - 2 && sample > (centres[at + 1] as number)) at += 1;
    const [left, right] = [centres[at] as number, centres[at + 1] ?? (centres[at] as number)];
    if (right <= left) return hz[at] as number;
    const share = Math.max(0, Math.min(1, (sample - left) / (right - left)));
    return (hz[at] as number) * (1 - share) + (hz[at + 1] as number) * share;
  };
}

/** Moving mean over a width, narrower at the ends. */
function smoothed(values: Float64Array, width: number): Float64Array {
  const half = Math.floor(width / 2);
  const sums = new Float64Array(values.length + 1);
  for (let i = 0; i < values.length; i++) sums[i + 1] = (sums[i] as number) + (values[i] as number);
  return values.map((_, i) => {
    const [low, high] = [Math.max(0, i - half), Math.min(values.length, i + half + 1)];
    return ((sums[high] as number) - (sums[low] as number)) / (high - low);
  });
}

/** The trace by hump: `points` values a hump, hump after hump, the hump's top in the middle. */
export interface HumpGrid {
  readonly points: number;
  readonly humps: number;
  /** Hump's number, counted as the phase counts, of the first row. */
  readonly first: number;
  readonly values: Float32Array;
}

/**
 * Puts a trace's samples onto a grid of so many points a hump; points no sample fell on are filled from beside.
 * @param most humps taken at most, from the first
 */
export function humpGrid(
  amps: Float32Array,
  phase: HumpPhase,
  points: number,
  most = Number.POSITIVE_INFINITY,
): HumpGrid {
  const { from, block, humps } = phase;
  const first = Math.ceil((humps[0] ?? 0) + 0.5);
  const last = Math.floor((humps.at(-1) ?? 0) - 0.5);
  const count = Math.max(0, Math.min(most, last - first));
  const sums = new Float32Array(count * points);
  const hits = new Uint16Array(count * points);
  for (let at = 0; at + 1 < humps.length && (humps[at] as number) < first + count + 1; at++) {
    const [here, next] = [humps[at] as number, humps[at + 1] as number];
    const begin = from + at * block + (block >> 1);
    for (let i = 0; i < block; i++) {
      const place = (here + ((next - here) * (i + 0.5 * (1 - (block & 1)))) / block + 0.5 - first) * points;
      const cell = Math.floor(place);
      if (cell < 0) continue;
      if (cell >= sums.length) break;
      sums[cell] = (sums[cell] as number) + (amps[begin + i] as number);
      hits[cell] = (hits[cell] as number) + 1;
    }
  }
  let held = 0;
  for (let cell = 0; cell < sums.length; cell++) {
    if ((hits[cell] as number) > 0) held = (sums[cell] as number) / (hits[cell] as number);
    sums[cell] = held;
  }
  return { points, humps: count, first, values: sums };
}
