import type { Stretch } from "./currentRecording";

/** The lowest and highest sample of each column of a picture, so that no spike is lost at any zoom. */
export interface Envelope {
  readonly low: number[];
  readonly high: number[];
}

/** Lowest and highest sample of each column of a stretch; fewer columns if it has fewer samples. */
export function envelopeOf(samples: Float32Array, { from, to }: Stretch, columns: number): Envelope {
  const wide = Math.max(1, Math.min(columns, to - from));
  const low: number[] = [];
  const high: number[] = [];
  for (let column = 0; column < wide; column++) {
    const first = from + Math.floor((column * (to - from)) / wide);
    const last = Math.max(first + 1, from + Math.floor(((column + 1) * (to - from)) / wide));
    let [least, most] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let i = first; i < last; i++) {
      const own = samples[i] as number;
      if (own < least) least = own;
      if (own > most) most = own;
    }
    low.push(rounded(least));
    high.push(rounded(most));
  }
  return { low, high };
}

/** More than five digits do not show in a picture. */
const rounded = (value: number): number => Number(value.toPrecision(5));
