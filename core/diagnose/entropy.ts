/** Entropy in bits of weights that need not sum to 1. */
export function entropyBits(weights: readonly number[] | Float64Array): number {
  let sum = 0;
  let logs = 0;
  for (let i = 0; i < weights.length; i++) {
    const weight = weights[i] as number;
    if (weight <= 0) continue;
    sum += weight;
    logs += weight * Math.log2(weight);
  }
  return sum > 0 ? Math.log2(sum) - logs / sum : 0;
}
