import type { Repair } from "../../fault/repair";
import type { Forecast } from "../tests/forecast";
import { readingFrom } from "../tests/readingFrom";
import type { ProofStep } from "./proofStep";

/** How often a test shows a step in a vehicle that needs this repair, 0 to 1. */
export function shareShown(step: ProofStep, { look, outcomes, repairs }: Forecast, repair: Repair): number {
  const at = repairs.indexOf(repair);
  let sum = 0;
  let all = 0;
  for (const outcome of outcomes) {
    const p = outcome.p * (outcome.repairs[at] ?? 0);
    all += p;
    if (step.shows(readingFrom(look, outcome))) sum += p;
  }
  return all > 0 ? sum / all : 0;
}
