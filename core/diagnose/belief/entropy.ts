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

/**
 * Expected entropy after an outcome is known: what de Kleer and Williams (1987) minimise to choose the next
 * measurement.
 * @param joint weights by outcome, then by hypothesis; they need not sum to 1
 * @returns bits
 */
export function entropyAfter(joint: readonly (readonly number[] | Float64Array)[]): number {
  let total = 0;
  let after = 0;
  for (const row of joint) {
    let sum = 0;
    for (let i = 0; i < row.length; i++) sum += row[i] as number;
    total += sum;
    if (sum > 0) after += sum * entropyBits(row);
  }
  return total > 0 ? after / total : 0;
}
