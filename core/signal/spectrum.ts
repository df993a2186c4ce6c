import FFT from "fft.js";
import type { Stretch } from "./currentRecording";

/** Magnitude by bin of a windowed stretch of samples; a tone of amplitude 1 has a quarter of the sample count. */
export interface Spectrum {
  readonly magnitude: Float64Array;
  /** Hertz between one bin and the next. */
  readonly binHz: number;
}

export interface SpectrumOptions {
  /** First sample; 0 by default. */
  readonly from?: number;
  /** Number of samples; all by default. */
  readonly count?: number;
  /** Smallest length of the transform, filled up with zeros; the next power of two by default. */
  readonly size?: number;
}

const plans = new Map<number, { fft: FFT; out: number[]; input: Float64Array }>();

function planOf(size: number) {
  const known = plans.get(size);
  if (known) return known;
  const fft = new FFT(size);
  const made = { fft, out: fft.createComplexArray(), input: new Float64Array(size) };
  plans.set(size, made);
  return made;
}

const powerOfTwo = (count: number): number => 2 ** Math.ceil(Math.log2(Math.max(2, count)));

/** Spectrum of a stretch of samples, with its mean removed, under a Hann window. */
export function spectrumOf(
  samples: ArrayLike<number>,
  rateHz: number,
  { from = 0, count = samples.length - from, size = powerOfTwo(count) }: SpectrumOptions = {},
): Spectrum {
  const { fft, out, input } = planOf(size);
  let mean = 0;
  for (let i = 0; i < count; i++) mean += (samples[from + i] as number) / count;
  for (let i = 0; i < count; i++)
    input[i] = ((samples[from + i] as number) - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / count));
  input.fill(0, count);
  fft.realTransform(out, input);
  const magnitude = new Float64Array(size / 2);
  for (let bin = 0; bin < magnitude.length; bin++)
    magnitude[bin] = Math.hypot(out[2 * bin] as number, out[2 * bin + 1] as number);
  return { magnitude, binHz: rateHz / size };
}

/** Largest number of samples searched for lines, and the smallest number in which lines can be found. */
const mostForLines = 2 ** 18;
const fewestForLines = 1024;

/** How many samples of a stretch, from its start, are searched for lines; null if it is too short. */
export function samplesForLines({ from, to }: Stretch): number | null {
  const count = Math.min(mostForLines, 2 ** Math.floor(Math.log2(Math.max(2, to - from))));
  return count < fewestForLines ? null : count;
}

/** A local maximum of a spectrum, with its position interpolated between bins. */
export interface Peak {
  readonly bin: number;
  readonly hz: number;
  readonly magnitude: number;
}

/**
 * The position of a peak between bins: a parabola through the logarithms of the peak and its neighbours (the usual
 * interpolation for a Hann window; F. J. Harris, "On the use of windows", Proc. IEEE 66, 1978, from memory).
 */
export function peakAt({ magnitude, binHz }: Spectrum, bin: number): Peak {
  const [left, top, right] = [bin - 1, bin, bin + 1].map((at) => Math.log((magnitude[at] ?? 0) + 1e-300)) as [
    number,
    number,
    number,
  ];
  const bend = left - 2 * top + right;
  const shift = bend === 0 ? 0 : Math.max(-0.5, Math.min(0.5, (left - right) / (2 * bend)));
  return {
    bin,
    hz: (bin + shift) * binHz,
    magnitude: Math.exp(top - 0.25 * (left - right) * shift),
  };
}

/**
 * Local maxima between two frequencies, the tallest first.
 * @param weigh the weight of a bin; its magnitude by default
 */
export function peaksOf(
  spectrum: Spectrum,
  lowHz: number,
  highHz: number,
  most: number,
  weigh: (magnitude: number, hz: number) => number = (magnitude) => magnitude,
): Peak[] {
  const { magnitude, binHz } = spectrum;
  const last = Math.min(magnitude.length - 2, Math.floor(highHz / binHz));
  const found: { bin: number; weight: number }[] = [];
  for (let bin = Math.max(2, Math.ceil(lowHz / binHz)); bin <= last; bin++) {
    const own = magnitude[bin] as number;
    if (own <= (magnitude[bin - 1] as number) || own < (magnitude[bin + 1] as number)) continue;
    const weight = weigh(own, bin * binHz);
    if (found.length === most && weight <= (found[most - 1]?.weight ?? 0)) continue;
    found.push({ bin, weight });
    found.sort((a, b) => b.weight - a.weight);
    if (found.length > most) found.pop();
  }
  return found.map(({ bin }) => peakAt(spectrum, bin));
}
