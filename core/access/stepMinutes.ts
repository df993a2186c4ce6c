import type { AccessStep } from "./plan";

/** Minutes as a mean and what they scatter by. */
export interface Minutes {
  readonly mean: number;
  readonly variance: number;
}

/** The standard normal's ninth decile. */
const ninthDecile = 1.2815515655446004;
/** What one time in ten takes at least, beside the mean, where a plan does not say (judgement, no source). */
export const usualSlow = 1.6;
/** A lognormal's ninth decile is never further above its mean than this: exp(z² / 2). */
const mostSlow = Math.exp((ninthDecile * ninthDecile) / 2);

/**
 * The scatter of a step's minutes: lognormal, with its own mean m and the ninth decile q, so that σ solves
 * ln q = ln m − σ²/2 + z σ with z = 1.2816.
 */
export function stepMinutes({ minutes, slowMinutes }: Pick<AccessStep, "minutes" | "slowMinutes">): Minutes {
  if (minutes <= 0) return { mean: 0, variance: 0 };
  const slow = Math.min(mostSlow, Math.max(1, (slowMinutes ?? usualSlow * minutes) / minutes));
  const sigma = ninthDecile - Math.sqrt(Math.max(0, ninthDecile * ninthDecile - 2 * Math.log(slow)));
  return { mean: minutes, variance: minutes * minutes * (Math.exp(sigma * sigma) - 1) };
}

/** Minutes of a whole, with the range that eight in ten fall into. */
export interface Spread {
  readonly mean: number;
  readonly low: number;
  readonly high: number;
}

/**
 * Minutes of steps done one after another, each with its own luck: a lognormal with the sum's mean and variance
 * (L. F. Fenton, "The sum of log-normal probability distributions in scatter transmission systems", 1960).
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
