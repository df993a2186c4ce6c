/** The odds someone gave before buying a part, and whether it was right. */
export interface Said {
  readonly p: number;
  readonly right: boolean;
}

/**
 * Mean of (odds − outcome)²: 0 is perfect, 0.25 is always saying one in two, 1 is always sure and always wrong.
 * @see G. W. Brier, "Verification of forecasts expressed in terms of probability", Monthly Weather Review 78 (1950)
 */
export function brierScore(said: readonly Said[]): number {
  return said.reduce((sum, { p, right }) => sum + (p - (right ? 1 : 0)) ** 2, 0) / Math.max(1, said.length);
}

/** The two components of the score: odds that do not match their outcomes, and odds that carry little information. */
export interface BrierParts {
  readonly score: number;
  /** How far the stated odds lie from the share that was right, weighted over the odds; 0 is perfectly calibrated. */
  readonly reliability: number;
  /** How far the shares that were right spread about their mean; more is better. */
  readonly resolution: number;
  /** Variance of the outcomes themselves, whatever odds were given. */
  readonly uncertainty: number;
}

/**
 * The score in three parts, reliability − resolution + uncertainty, over groups of equal odds. @see A. H. Murphy, "A
 * new vector partition of the probability score", Journal of Applied Meteorology 12 (1973)
 */
export function brierParts(said: readonly Said[]): BrierParts {
  const count = Math.max(1, said.length);
  const mean = said.filter(({ right }) => right).length / count;
  const byOdds = new Map<number, Said[]>();
  for (const own of said) byOdds.set(own.p, [...(byOdds.get(own.p) ?? []), own]);
  let [reliability, resolution] = [0, 0];
  for (const [p, group] of byOdds) {
    const share = group.filter(({ right }) => right).length / group.length;
    reliability += (group.length * (p - share) ** 2) / count;
    resolution += (group.length * (share - mean) ** 2) / count;
  }
  return { score: brierScore(said), reliability, resolution, uncertainty: mean * (1 - mean) };
}

/** The score after each purchase, over the last few; it shows improvement with practice. */
export function brierOverTime(said: readonly Said[], window = 10): number[] {
  return said.map((_, index) => brierScore(said.slice(Math.max(0, index + 1 - window), index + 1)));
}
