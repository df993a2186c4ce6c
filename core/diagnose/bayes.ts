/** Weights given as logarithms, made to sum to 1. */
export interface Posterior {
  readonly p: Float64Array;
  /** Logarithm of their sum: how likely what was seen was under all hypotheses together. */
  readonly evidence: number;
}

/**
 * P(hypothesis | seen) from the logarithms of prior times likelihood, by Bayes with the largest taken
 * out first so that nothing under- or overflows.
 * @param logs natural logarithms, -Infinity for the impossible; at least one finite
 */
export function posteriorOf(logs: Float64Array): Posterior {
  let top = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < logs.length; i++) if ((logs[i] as number) > top) top = logs[i] as number;
  const p = new Float64Array(logs.length);
  let sum = 0;
  for (let i = 0; i < logs.length; i++) {
    p[i] = Math.exp((logs[i] as number) - top);
    sum += p[i] as number;
  }
  for (let i = 0; i < p.length; i++) p[i] = (p[i] as number) / sum;
  return { p, evidence: top + Math.log(sum) };
}
