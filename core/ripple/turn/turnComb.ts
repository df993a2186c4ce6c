/** Most ripples per turn: the highest order that can occur. */
export const mostOrders = 48;
/** Share of lines beside a comb that belong to nothing; jitter makes some. */
const strayShare = 0.3;
/** Smallest chance that is used for a line lying near an order by accident. */
const leastChance = 0.005;

/**
 * True where a rhythm is some order of the turn of which the ripples are one order.
 * @param order ripples per turn
 * @param within hertz at the ripple's own frequency; farther up it grows with it
 */
export function isOrder(ripple: number, order: number, other: number, within: number): boolean {
  const once = ripple / order;
  return Math.abs(other - Math.round(other / once) * once) < within * (1 + other / ripple);
}

/** The ripples per turn that lines speak for most, and by how much. */
export interface TurnComb {
  readonly perTurn: number;
  /** Natural logarithm of how many times likelier the lines are as orders of that turn than as lines anywhere. */
  readonly evidence: number;
}

/**
 * How well lines go as orders of one turn with the ripples. A line meets some order by chance in the share of all frequencies
 * that lie as near to one, so many close orders say little of each; that a count had to be chosen is paid for by its logarithm.
 * @param counts ripples per turn that may be
 * @param within hertz, as in `isOrder`
 * @returns null where no count may be
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
