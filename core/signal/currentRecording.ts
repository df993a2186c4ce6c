/** A motor's current over time, evenly sampled. */
export interface CurrentRecording {
  readonly amps: Float32Array;
  readonly rateHz: number;
}

/** A stretch of a recording: from the first sample up to, not including, the last. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** Mean, lowest and highest of a stretch of samples. */
export function rangeOf(samples: Float32Array, { from, to }: Stretch) {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  let sum = 0;
  for (let i = from; i < to; i++) {
    const value = samples[i] as number;
    sum += value;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return to > from ? { mean: sum / (to - from), low, high } : { mean: 0, low: 0, high: 0 };
}

/** Mean of the values; 0 for an empty list. */
export function meanOf(values: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] as number;
  return values.length === 0 ? 0 : sum / values.length;
}

/** The median, the upper of two middle values; 0 for an empty list. */
export function medianOf(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort();
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}
