import { failsWithin } from "../access/failureChance";
import type { PartKind } from "../circuit/parts/index";

/** What may bring a repaired vehicle back within its warranty. */
export interface ComebackRisks {
  readonly months: number;
  /** Kinds of the parts fitted: each may fail again by itself. */
  readonly fitted: readonly (PartKind | "connector")[];
  /** What may have killed the part and was left in, with the doubt that is left of it; null where there is none. */
  readonly advised: { readonly kind: PartKind | "connector"; readonly doubt: number } | null;
}

/** Chance of a comeback as it was repaired, and with what was advised done too; null where nothing was. */
export interface ComebackOdds {
  readonly months: number;
  readonly plain: number;
  readonly advised: number | null;
}

/**
 * Odds of a comeback within the warranty, from what is new and what was left in: 1 − Π(1 − each), independent. A new part has its
 * kind's yearly chance; one that was left in has that and the doubt that is left of it, and takes the new part with it.
 */
export function comebackOdds({ months, fitted, advised }: ComebackRisks): ComebackOdds {
  const holds = fitted.reduce((product, kind) => product * (1 - failsWithin(kind, months, 0)), 1);
  if (!advised) return { months, plain: 1 - holds, advised: null };
  const left = 1 - failsWithin(advised.kind, months, advised.doubt);
  const renewed = 1 - failsWithin(advised.kind, months, 0);
  return { months, plain: 1 - holds * left, advised: 1 - holds * renewed };
}
