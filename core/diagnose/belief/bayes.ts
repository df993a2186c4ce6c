/** Scales weights to sum to 1. */
export interface Posterior {
  readonly p: Float64Array;
  /** Logarithm of their sum: the likelihood of the readings under all hypotheses together. */
  readonly evidence: number;
}

/**
 * P(hypothesis | readings) from prior times likelihood, by Bayes.
 * @param weights zero and above, at least one above zero
 * @param logScale natural logarithm of the factor `rescale` has divided out
 */
export function posteriorOf(weights: Float64Array, logScale = 0): Posterior {
  let sum = 0;
  for (let i = 0; i < weights.length; i++) sum += weights[i] as number;
  const p = new Float64Array(weights.length);
  for (let i = 0; i < p.length; i++) p[i] = (weights[i] as number) / sum;
  return { p, evidence: Math.log(sum) + logScale };
}

/**
 * Divides weights by the largest of them, so that a long product of likelihoods does not underflow.
 * @returns the natural logarithm of the divisor
 */
export function rescale(weights: Float64Array): number {
  let top = 0;
  for (let i = 0; i < weights.length; i++) if ((weights[i] as number) > top) top = weights[i] as number;
  for (let i = 0; i < weights.length; i++) weights[i] = (weights[i] as number) / top;
  return Math.log(top);
}
