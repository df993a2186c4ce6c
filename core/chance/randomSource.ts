import { normalFrom, uniformSource } from "./uniformSource";

/** Uniform numbers between 0 and 1, and standard normal ones; the same sequence for the same seed. */
export function randomSource(seed: number): { uniform: () => number; normal: () => number } {
  const uniform = uniformSource(seed * 7919 + 17, 64);
  return { uniform, normal: normalFrom(uniform) };
}
