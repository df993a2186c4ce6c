/** Most ripples per turn: the highest order that can occur. */
export const mostOrders = 48;
/** Share of lines beside a comb that belong to nothing; jitter makes some. */
const strayShare = 0.3;
/** Smallest chance that is used for a line lying near an order by accident. */
const leastChance = 0.005;

/**
 * True if a rhythm is an order of the turn that has the ripples as one of its orders.
 * @param order ripples per turn
 * @param within tolerance in hertz at the ripple's own frequency; it grows with frequency above that
 */
export function isOrder(ripple: number, order: number, other: number, within: number): boolean {
  const once = ripple / order;
  return Math.abs(other - Math.round(other / once) * once) < within * (1 + other / ripple);
}

/** The ripples per turn that the lines support most, and by how much. */
export interface TurnComb {
  readonly perTurn: number;
  /** Natural logarithm of how many times likelier the lines are as orders of that turn than as lines at random. */
  readonly evidence: number;
}

/**
 * How well lines fit as orders of one turn with the ripples. A random line matches some order with a probability equal
 * to the share of frequencies close to one, so many close orders say little; the choice of a count costs its
 * logarithm.
 * @param counts possible ripples per turn
 * @param within hertz, as in `isOrder`
 * @returns null if no count is possible
 */
export function turnComb(
  ripple: number,
  lines: readonly number[],
  counts: readonly number[],
  within: number,
): TurnComb | null {
  let best: TurnComb | null = null;
  for (const perTurn of counts) {
    let evidence = -Math.log(counts.length);
    for (const line of lines) {
      const near = (2 * within * (1 + line / ripple) * perTurn) / ripple;
      const chance = Math.min(1, Math.max(leastChance, near));
      evidence += isOrder(ripple, perTurn, line, within)
        ? Math.log(1 - strayShare + strayShare * chance) - Math.log(chance)
        : Math.log(strayShare);
    }
    if (best === null || evidence > best.evidence) best = { perTurn, evidence };
  }
  return best;
}
