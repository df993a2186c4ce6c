import { xoroshiro128plus } from "pure-rand/generator/XoroShiro";

/**
 * A seeded source of uniform numbers strictly between 0 and 1, the same sequence for the same seed: xoroshiro128+
 * (Blackman and Vigna, 2018), its upper 32 bits. Sealed practice files replay from seeds, so its outputs must never
 * change.
 * @param discarded number of outputs discarded first, since the first ones of neighbouring seeds are alike
 */
export function uniformSource(seed: number, discarded = 0): () => number {
  const source = xoroshiro128plus(seed);
  for (let i = 0; i < discarded; i++) source.unsafeNext();
  return () => ((source.unsafeNext() >>> 0) + 0.5) / 2 ** 32;
}

/** Standard normal numbers from uniform ones, two from two (Box and Muller, 1958). */
export const normalFrom =
  (uniform: () => number): (() => number) =>
  () =>
    Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
