/** How a fraction of a minor unit is rounded; halves go away from zero, or to the even neighbour. */
export const roundingRules = ["half-up", "half-even", "up", "down"] as const;
export type RoundingRule = (typeof roundingRules)[number];

/**
 * `amount × times / by` as a whole number of minor units. Exact, because it uses whole numbers throughout.
 * @param amount whole minor units, either sign
 * @param times whole, not negative
 * @param by whole, above zero
 */
export function scaled(amount: number, times: number, by: number, rule: RoundingRule): number {
  for (const value of [amount, times, by])
    if (!Number.isSafeInteger(value)) throw new RangeError(`${value} is no whole number`);
  if (times < 0 || by <= 0) throw new RangeError("a share is not negative and its base above zero");
  const product = BigInt(amount) * BigInt(times);
  const base = BigInt(by);
  const sign = product < 0n ? -1n : 1n;
  const size = product * sign;
  const [whole, rest] = [size / base, size % base];
  return Number(sign * (whole + (carries(whole, rest, base, rule) ? 1n : 0n)));
}

function carries(whole: bigint, rest: bigint, base: bigint, rule: RoundingRule): boolean {
  if (rest === 0n) return false;
  const twice = 2n * rest;
  switch (rule) {
    case "up":
      return true;
    case "down":
      return false;
    case "half-up":
      return twice >= base;
    case "half-even":
      return twice > base || (twice === base && whole % 2n === 1n);
  }
}

/** One hundred per cent, in basis points. */
export const wholeBasisPoints = 10_000;

/** A share of an amount, in basis points. */
export const shareOf = (amount: number, basisPoints: number, rule: RoundingRule): number =>
  scaled(amount, basisPoints, wholeBasisPoints, rule);

/**
 * Splits a total by weights so that the pieces add up exactly. The largest remainders get what is left over
 * (Hamilton's method), the first of equals first.
 */
export function apportioned(total: number, weights: readonly number[]): number[] {
  const sum = weights.reduce((all, weight) => all + weight, 0);
  if (sum === 0) return weights.map((_, index) => (index === 0 ? total : 0));
  const sign = total < 0 ? -1 : 1;
  const size = BigInt(Math.abs(total));
  const exact = weights.map((weight) => size * BigInt(weight));
  const base = BigInt(sum);
  const pieces = exact.map((own) => Number(own / base));
  const left = Math.abs(total) - pieces.reduce((all, piece) => all + piece, 0);
  const order = exact
    .map((own, index) => ({ index, rest: own % base }))
    .sort((a, b) => (a.rest === b.rest ? a.index - b.index : a.rest < b.rest ? 1 : -1));
  for (const { index } of order.slice(0, left)) (pieces[index] as number) += 1;
  return pieces.map((piece) => (piece === 0 ? 0 : sign * piece));
}

/** An amount rounded to the nearest multiple of the smallest coin, halves away from zero. */
export function toCoin(amount: number, coinMinor: number): number {
  return coinMinor <= 1 ? amount : scaled(amount, 1, coinMinor, "half-up") * coinMinor;
}
