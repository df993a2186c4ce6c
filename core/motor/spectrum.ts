import FFT from "fft.js";

/** Magnitudes of a windowed stretch of samples, by bin. */
export interface Spectrum {
  readonly magnitude: Float64Array;
  /** Hertz from one bin to the next. */
  readonly binHz: number;
}

const mostSamples = 2 ** 17;

/** Spectrum of the first power-of-two stretch, its mean taken out, under a Hann window. */
export function spectrumOf(samples: ArrayLike<number>, rateHz: number): Spectrum {
  const size = 2 ** Math.floor(Math.log2(Math.min(samples.length, mostSamples)));
  let mean = 0;
  for (let i = 0; i < size; i++) mean += (samples[i] as number) / size;
  const windowed = Float64Array.from(
    { length: size },
    (_, i) => ((samples[i] as number) - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size)),
  );
  const fft = new FFT(size);
  const out = fft.createComplexArray();
  fft.realTransform(out, windowed);
  const magnitude = Float64Array.from({ length: size / 2 }, (_, bin) =>
    Math.hypot(out[2 * bin] as number, out[2 * bin + 1] as number),
  );
  return { magnitude, binHz: rateHz / size };
}

/**
 * The strongest frequency above a floor, between bins by a parabola through the logarithms of the peak and
 * its neighbours (the usual interpolation for a Hann window).
 * @returns hertz and how far the peak stands above the median, or null when there is nothing to see
 */
export function strongestHz(
  { magnitude, binHz }: Spectrum,
  floorHz: number,
): { readonly hz: number; readonly overMedian: number } | null {
  const first = Math.max(2, Math.ceil(floorHz / binHz));
  let peak = first;
  for (let bin = first; bin < magnitude.length - 1; bin++)
    if ((magnitude[bin] as number) > (magnitude[peak] as number)) peak = bin;
  if (peak >= magnitude.length - 1) return null;
  const [left, top, right] = [peak - 1, peak, peak + 1].map((bin) =>
    Math.log((magnitude[bin] as number) + 1e-300),
  ) as [number, number, number];
  const bend = left - 2 * top + right;
  const shift = bend === 0 ? 0 : (left - right) / (2 * bend);
  const sorted = Float64Array.from(magnitude.subarray(first)).sort();
  const median = sorted[Math.floor(sorted.length / 2)] ?? 0;
  return { hz: (peak + shift) * binHz, overMedian: (magnitude[peak] as number) / Math.max(1e-300, median) };
}
