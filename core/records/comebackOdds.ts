import { failsWithin } from "../access/failureChance";
import type { PartKind } from "../circuit/parts/index";

/** What may bring a repaired vehicle back within its warranty. */
export interface ComebackRisks {
  readonly months: number;
  /** Kinds of the parts fitted; each may fail again by itself. */
  readonly fitted: readonly (PartKind | "connector")[];
  /** Probability before the final check that the work cured the fault. */
  readonly cured: number;
  /** Some of the work only buys time. */
  readonly temporary: boolean;
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
 * Share of faults that a final check does not show although nothing cured them, because they come and go, or because a
 * plug was seated again on the way (judgement, no source).
 */
export const silentShare = 0.2;

/**
 * Probability that the fault is still there although the final check is passed, by Bayes.
 * @param cured probability before the check that the work cured it
 */
export const stillThere = (cured: number): number => {
  const silent = (1 - cured) * silentShare;
  return cured + silent === 0 ? 0 : silent / (cured + silent);
};

/** Probability that a repair which only buys time is back within the warranty (judgement, no source). */
export const temporaryFails = 0.7;

/**
 * Probability of a comeback within the warranty, from the doubt about the repair, the new parts and what was left in: 1 − Π(1 − each),
 * independent. A new part has its kind's yearly probability. A part left in has that plus the remaining doubt about
 * it, and damages the new part when it fails.
 */
export function comebackOdds({ months, fitted, cured, temporary, advised }: ComebackRisks): ComebackOdds {
  const repair = (1 - stillThere(cured)) * (temporary ? 1 - temporaryFails : 1);
  const holds = fitted.reduce((product, kind) => product * (1 - failsWithin(kind, months, 0)), repair);
  if (!advised) return { months, plain: 1 - holds, advised: null };
  const left = 1 - failsWithin(advised.kind, months, advised.doubt);
  const renewed = 1 - failsWithin(advised.kind, months, 0);
  return { months, plain: 1 - holds * left, advised: 1 - holds * renewed };
}
