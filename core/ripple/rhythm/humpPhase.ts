import type { CurrentRecording, Stretch } from "../../signal/currentRecording";
import type { HumpRhythm } from "./humpRhythm";

/** The ripple phase of a recording: whole numbers at the ripple tops, counted from the first sample. */
export interface HumpPhase {
  readonly from: number;
  /** Samples between entries of `humps`. */
  readonly block: number;
  /** Number of ripples passed at the middle of each block. */
  readonly humps: Float64Array;
}

/**
 * Follows the ripple's phase: the recording is shifted down by the rhythm known so far, averaged over some ripples,
 * and the remaining angle is unwrapped (quadrature demodulation, any signal-processing handbook).
 * @param smoothHumps number of ripples averaged over; whole turns remove whatever repeats once per turn
 */
export function humpPhase(
  { amps, rateHz }: CurrentRecording,
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
  const ripple = new Float64Array(count);
  let turns = 0;
  let last = 0;
  for (let at = 0; at < count; at++) {
    const own = Math.atan2(im[at] as number, re[at] as number);
    if (at > 0 && own - last > Math.PI) turns -= 1;
    if (at > 0 && last - own > Math.PI) turns += 1;
    last = own;
    ripple[at] = ((base[at] as number) + own) / (2 * Math.PI) + turns;
  }
  return { from, block, humps: ripple };
}

/** The rhythm at any sample, interpolated linearly between the stretches. */
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

/** Moving average over a width, narrower at the ends. */
function smoothed(values: Float64Array, width: number): Float64Array {
  const half = Math.floor(width / 2);
  const sums = new Float64Array(values.length + 1);
  for (let i = 0; i < values.length; i++) sums[i + 1] = (sums[i] as number) + (values[i] as number);
  return values.map((_, i) => {
    const [low, high] = [Math.max(0, i - half), Math.min(values.length, i + half + 1)];
    return ((sums[high] as number) - (sums[low] as number)) / (high - low);
  });
}
