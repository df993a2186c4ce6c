import FFT from "fft.js";
import { medianOf } from "../../signal/currentRecording";

/** Fewest samples per period of the line. */
const samplesPerPeriod = 4;
/**
 * Distance from the line, in bins, from which its surroundings are used. Closer bins hold what the drift of the speed
 * leaves.
 */
const nearestBin = 6;
/** Distance from the line, as a share of its frequency, up to which they are used. */
const farthestShare = 0.35;
/** Fewest bins needed on either side. */
const fewestBins = 20;
/**
 * Standard deviation of the logarithm of the ratio of two medians of exponential variables, times the root of their
 * number.
 */
const medianSpread = Math.SQRT2 / Math.LN2;

/** A line's jitter. */
export interface LineJitter {
  /** 1 for a clock, more for a line with jitter. */
  readonly ratio: number;
  /** Number of standard deviations above 1. */
  readonly deviations: number;
}

/**
 * How much more a line varies in phase than in amplitude: the median power of its phase modulation over that of its
 * amplitude modulation, on both sides of the line. Noise affects both equally, so a clock shows 1; ripples come
 * slightly early or late, and show more.
 * @param hz the line, to a small fraction of a bin
 * @returns null if too few bins around the line are usable
 */
export function lineJitter(
  amps: Float32Array,
  rateHz: number,
  from: number,
  count: number,
  hz: number,
): LineJitter | null {
  const most = Math.max(1, Math.floor(rateHz / (samplesPerPeriod * hz)));
  const size = 2 ** Math.ceil(Math.log2(count / most));
  const each = Math.floor(count / size);
  if (each < 1) return null;
  const binHz = rateHz / each / size;
  const last = Math.min(size / 2 - 1, Math.floor((farthestShare * hz) / binHz));
  if (last - nearestBin < fewestBins) return null;
  let mean = 0;
  for (let i = 0; i < size * each; i++) mean += (amps[from + i] as number) / (size * each);
  const fft = new FFT(size);
  const line = fft.createComplexArray();
  for (let at = 0; at < size; at++) {
    let [re, im] = [0, 0];
    for (let i = at * each; i < (at + 1) * each; i++) {
      const angle = (2 * Math.PI * hz * i) / rateHz;
      const value = (amps[from + i] as number) - mean;
      re += value * Math.cos(angle);
      im -= value * Math.sin(angle);
    }
    const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * at) / size);
    line[2 * at] = re * window;
    line[2 * at + 1] = im * window;
  }
  const out = fft.createComplexArray();
  fft.transform(out, line);
  const tall = Math.hypot(out[0] as number, out[1] as number);
  const [cos, sin] = [(out[0] as number) / tall, (out[1] as number) / tall];
  const heights: number[] = [];
  const phases: number[] = [];
  for (let off = nearestBin; off <= last; off++) {
    const [a, b] = [out[2 * off] as number, out[2 * off + 1] as number];
    const [c, d] = [out[2 * (size - off)] as number, out[2 * (size - off) + 1] as number];
    // Both sides rotated by the line's own phase, the lower one conjugated.
    const [upRe, upIm] = [a * cos + b * sin, b * cos - a * sin];
    const [downRe, downIm] = [c * cos + d * sin, -(d * cos - c * sin)];
    heights.push((upRe + downRe) ** 2 + (upIm + downIm) ** 2);
    phases.push((upRe - downRe) ** 2 + (upIm - downIm) ** 2);
  }
  const ratio = medianOf(phases) / Math.max(1e-300, medianOf(heights));
  return { ratio, deviations: (Math.log(ratio) * Math.sqrt(phases.length)) / medianSpread };
}
