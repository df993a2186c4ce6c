import { normalQuantile } from "../predict/tables/normal";

/** A verdict's belief when parts were fitted, and whether the repair held. */
export interface Held {
  readonly p: number;
  readonly held: boolean;
}

/** A share of some trials with its confidence interval. */
export interface ShareInterval {
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/**
 * The score interval of a share.
 * @param confidence 0.9 by default @see E. B. Wilson, "Probable inference, the law of succession, and statistical
 *   inference", JASA 22 (1927)
 */
export function wilsonInterval(hits: number, trials: number, confidence = 0.9): ShareInterval {
  if (trials === 0) return { share: 0, low: 0, high: 1 };
  const z = normalQuantile(0.5 + confidence / 2);
  const share = hits / trials;
  const centre = share + (z * z) / (2 * trials);
  const reach = z * Math.sqrt((share * (1 - share)) / trials + (z * z) / (4 * trials * trials));
  const whole = 1 + (z * z) / trials;
  return { share, low: Math.max(0, (centre - reach) / whole), high: Math.min(1, (centre + reach) / whole) };
}

/** Verdicts with nearly the same belief, and how many of them held. */
export interface ReliabilityBin extends ShareInterval {
  readonly from: number;
  readonly to: number;
  /** Their mean belief. */
  readonly said: number;
  readonly hits: number;
  readonly trials: number;
}

/** How well calibrated a shop's verdicts were. */
export interface Reliability {
  readonly bins: readonly ReliabilityBin[];
  readonly trials: number;
  /** Mean of (belief − outcome)²: 0 is perfect, 0.25 is no better than a coin. */
  readonly brier: number;
  /** The score of always saying the share that held. */
  readonly brierOfShare: number;
}

/** Most verdicts have a high belief, so the bins are narrow there. */
const edges = [0, 0.5, 0.7, 0.8, 0.9, 0.95, 0.98, 1];

/** A bin's sums, which the database computes, so that the verdicts themselves need not be read. */
export interface BinSums {
  readonly trials: number;
  readonly hits: number;
  /** Sums of the beliefs, of their squares, and of those that held. */
  readonly said: number;
  readonly squares: number;
  readonly saidOfHits: number;
}

export const reliabilityEdges: readonly number[] = edges;

/** The bin of a belief. */
export const binOf = (p: number): number =>
  Math.max(0, Math.min(edges.length - 2, edges.findIndex((edge, i) => i > 0 && p < edge) - 1));

/** Sums by bin of single verdicts. */
export function sumsOf(verdicts: readonly Held[]): BinSums[] {
  const sums = edges.slice(1).map(() => ({ trials: 0, hits: 0, said: 0, squares: 0, saidOfHits: 0 }));
  for (const { p, held } of verdicts) {
    const own = sums[p >= 1 ? edges.length - 2 : binOf(p)];
    if (!own) continue;
    own.trials += 1;
    own.said += p;
    own.squares += p * p;
    if (held) {
      own.hits += 1;
      own.saidOfHits += p;
    }
  }
  return sums;
}

/**
 * The reliability diagram and the score of verdicts, from their sums by bin. @see G. W. Brier, "Verification of
 * forecasts expressed in terms of probability", Monthly Weather Review 78 (1950)
 */
export function reliability(sums: readonly BinSums[]): Reliability {
  const total = (of: (own: BinSums) => number): number => sums.reduce((sum, own) => sum + of(own), 0);
  const trials = total((own) => own.trials);
  const hits = total((own) => own.hits);
  // (p − o)² is p² − 2po + o², and o² is o.
  const error = total((own) => own.squares - 2 * own.saidOfHits + own.hits);
  const share = trials > 0 ? hits / trials : 0;
  return {
    bins: sums.flatMap((own, index) =>
      own.trials === 0
        ? []
        : [
            {
              from: edges[index] as number,
              to: edges[index + 1] as number,
              said: own.said / own.trials,
              hits: own.hits,
              trials: own.trials,
              ...wilsonInterval(own.hits, own.trials),
            },
          ],
    ),
    trials,
    brier: trials > 0 ? error / trials : 0,
    brierOfShare: share * (1 - share),
  };
}
