import type { OfferKind } from "@core/money/repairOffer";

/** The name of each way to do the repair. */
export const offerTitles: Readonly<Record<OfferKind, string>> = {
  "part-only": "Part only",
  "part-and-cause": "Part and root cause",
  "both-at-once": "Both parts at once, labour shared",
  "owners-own": "The customer fits it",
  "guess-first": "On a guess: swap the usual part",
};
