import type { AccessStep } from "./plan";

/** Minutes as a mean with their scatter. */
export interface Minutes {
  readonly mean: number;
  readonly variance: number;
}

/** The standard normal's ninth decile. */
const ninthDecile = 1.2815515655446004;
/**
 * Minutes it takes at least one time in ten, as a multiple of the mean, if a plan gives none (judgement, no source).
 */
export const usualSlow = 1.6;
/** A lognormal's ninth decile never exceeds its mean by more than this factor, exp(z² / 2). */
const mostSlow = Math.exp((ninthDecile * ninthDecile) / 2);

/**
 * The scatter of a step's minutes: lognormal with mean m and ninth decile q, so that σ solves ln q = ln m − σ²/2 + z σ
 * with z = 1.2816.
 */
export function stepMinutes({ minutes, slowMinutes }: Pick<AccessStep, "minutes" | "slowMinutes">): Minutes {
  if (minutes <= 0) return { mean: 0, variance: 0 };
  const slow = Math.min(mostSlow, Math.max(1, (slowMinutes ?? usualSlow * minutes) / minutes));
  const sigma = ninthDecile - Math.sqrt(Math.max(0, ninthDecile * ninthDecile - 2 * Math.log(slow)));
  return { mean: minutes, variance: minutes * minutes * (Math.exp(sigma * sigma) - 1) };
}

/** Total minutes, with the range that holds eight times in ten. */
export interface Spread {
  readonly mean: number;
  readonly low: number;
  readonly high: number;
}

/**
 * Minutes of steps done one after another, with independent scatter: a lognormal with the sum's mean and variance (L.
 * F. Fenton, "The sum of log-normal probability distributions in scatter transmission systems", 1960).
 */
export function spreadOf(parts: readonly Minutes[]): Spread {
  const mean = parts.reduce((sum, part) => sum + part.mean, 0);
  const variance = parts.reduce((sum, part) => sum + part.variance, 0);
  if (mean <= 0) return { mean: 0, low: 0, high: 0 };
  const sigma = Math.sqrt(Math.log(1 + variance / (mean * mean)));
  const median = mean * Math.exp((-sigma * sigma) / 2);
  return {
    mean,
    low: median * Math.exp(-ninthDecile * sigma),
    high: median * Math.exp(ninthDecile * sigma),
  };
}
