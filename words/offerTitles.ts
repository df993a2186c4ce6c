import type { OfferKind } from "@core/money/repairOffer";

/** What each way to do the job is called. */
export const offerTitles: Readonly<Record<OfferKind, string>> = {
  "part-only": "The part only",
  "part-and-cause": "The part and what killed it",
  "both-at-once": "Both at once, labour shared",
  "owners-own": "The owner fits it",
  "guess-first": "Swap the usual part on a guess",
};
