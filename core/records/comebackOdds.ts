import { failsWithin } from "../access/failureChance";
import type { PartKind } from "../circuit/parts/index";

/** What may bring a repaired vehicle back within its warranty. */
export interface ComebackRisks {
  readonly months: number;
  /** Kinds of the parts fitted; each may fail again by itself. */
  readonly fitted: readonly (PartKind | "connector")[];
  /** What may have caused the failure and was left in, with the remaining doubt about it; null if there is nothing. */
  readonly advised: { readonly kind: PartKind | "connector"; readonly doubt: number } | null;
}

/** Probability of a comeback as repaired, and with the advised work done too; null if none was advised. */
export interface ComebackOdds {
  readonly months: number;
  readonly plain: number;
  readonly advised: number | null;
}

/**
 * Probability of a comeback within the warranty, from the new parts and what was left in: 1 − Π(1 − each),
 * independent. A new part has its kind's yearly probability. A part left in has that plus the remaining doubt about
 * it, and damages the new part when it fails.
 */
export function comebackOdds({ months, fitted, advised }: ComebackRisks): ComebackOdds {
  const holds = fitted.reduce((product, kind) => product * (1 - failsWithin(kind, months, 0)), 1);
  if (!advised) return { months, plain: 1 - holds, advised: null };
  const left = 1 - failsWithin(advised.kind, months, advised.doubt);
  const renewed = 1 - failsWithin(advised.kind, months, 0);
  return { months, plain: 1 - holds * left, advised: 1 - holds * renewed };
}
