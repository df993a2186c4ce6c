import { xoroshiro128plus } from "pure-rand/generator/XoroShiro";

/** Uniform numbers between 0 and 1, and standard normal ones, the same for a seed every time. */
export function randomSource(seed: number): { uniform: () => number; normal: () => number } {
  const random = xoroshiro128plus(seed * 7919 + 17);
  // The first outputs of neighbouring seeds are alike.
  for (let i = 0; i < 64; i++) random.unsafeNext();
  const uniform = (): number => ((random.unsafeNext() >>> 0) + 0.5) / 2 ** 32;
  const normal = (): number => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
  return { uniform, normal };
}
