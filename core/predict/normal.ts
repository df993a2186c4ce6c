/**
 * Distribution function of the standard normal, by the error function of Abramowitz and Stegun
 * 7.1.26 (error below 1.5e-7).
 */
export function normalCdf(x: number): number {
  const t = 1 / (1 + (0.3275911 * Math.abs(x)) / Math.SQRT2);
  const poly =
    t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const erf = 1 - poly * Math.exp((-x * x) / 2);
  return x >= 0 ? (1 + erf) / 2 : (1 - erf) / 2;
}

/** The value a standard normal stays below with probability p, by bisection; within ±6. */
export function normalQuantile(p: number): number {
  let low = -6;
  let high = 6;
  for (let round = 0; round < 60; round++) {
    const middle = (low + high) / 2;
    if (normalCdf(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
