import { uniformSource } from "./uniformSource";

/** A seeded random source for the fleet. */
export interface Chance {
  /** Uniform between 0 and 1. */
  readonly uniform: () => number;
  readonly between: (low: number, high: number) => number;
  /** Uniform on a log scale. */
  readonly logBetween: (low: number, high: number) => number;
  readonly pick: <T>(items: readonly T[]) => T;
  /** An index, chosen by weight. */
  readonly weighted: (weights: readonly number[]) => number;
}

/** A random source that gives the same sequence for the same seed. */
export function chanceFrom(seed: number): Chance {
  const uniform = uniformSource(seed, 32);
  const between = (low: number, high: number): number => low + (high - low) * uniform();
  return {
    uniform,
    between,
    logBetween: (low, high) => Math.exp(between(Math.log(low), Math.log(high))),
    pick: (items) => {
      const item = items[Math.floor(uniform() * items.length)];
      if (item === undefined) throw new RangeError("nothing to pick from");
      return item;
    },
    weighted: (weights) => {
      let left = uniform() * weights.reduce((sum, weight) => sum + weight, 0);
      for (const [index, weight] of weights.entries()) {
        left -= weight;
        if (left <= 0) return index;
      }
      return weights.length - 1;
    },
  };
}
