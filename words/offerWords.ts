import type { WorkDone } from "@core/labour/workDone";
import type { OfferedWork, OfferKind } from "@core/money/repairOffer";
import { listed } from "@core/units/wording";

/** The name of each way to do the repair. */
export const offerTitles: Readonly<Record<OfferKind, string>> = {
  "part-only": "This repair only",
  "part-and-cause": "This repair and the root cause",
  "both-at-once": "Both parts at once, labour shared",
  "owners-own": "The customer fits it",
  "guess-first": "On a guess: swap the usual part",
};

const verbs: Readonly<Record<WorkDone, string>> = {
  renewed: "renew",
  repaired: "repair",
  cleaned: "clean",
  oiled: "oil",
  "re-pinned": "re-pin",
  spliced: "splice in a new",
  "carried-over": "carry over",
  adapted: "adapt",
  fitted: "fit",
  refitted: "test and put back",
  "leak-stopped": "find and stop the leak above",
  other: "work on",
};

/** A line of labour: `Renew blower motor M1 and resistor pack R1, clean ground G2`. */
export function labourTitle(works: readonly Pick<OfferedWork, "name" | "done">[]): string {
  const kinds = [...new Set(works.map(({ done }) => done))];
  const words = kinds
    .map(
      (done) => `${verbs[done]} ${listed(works.filter((own) => own.done === done).map(({ name }) => name))}`,
    )
    .join(", ");
  return words.slice(0, 1).toUpperCase() + words.slice(1);
}
