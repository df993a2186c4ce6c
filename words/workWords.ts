import type { Circuit } from "@core/circuit/circuit";
import type { OldPartState } from "@core/diagnose/history/failedRepair";
import type { WorkDone } from "@core/labour/workDone";
import { isTemporary } from "@core/labour/workDone";
import type { WorkReason } from "@core/workList/proposedWork";
import type { WorkEntry } from "@core/workList/workLine";
import { adaptationThing } from "./adaptationWords";
import { partName, repairName } from "./partName";

/** What was done, after the name of what it was done to. */
export const doneWords: Readonly<Record<WorkDone, string>> = {
  renewed: "renewed",
  repaired: "repaired",
  cleaned: "cleaned",
  oiled: "oiled",
  "re-pinned": "re-pinned",
  spliced: "new plug spliced in",
  "carried-over": "carried over to the new part",
  adapted: "adapted to fit",
  fitted: "fitted",
  refitted: "proved good and put back",
  "leak-stopped": "leak above it found and stopped",
  other: "worked on",
};

/** What an old part turned out to be. */
export const oldPartWords: Readonly<Record<OldPartState | "unknown", string>> = {
  bad: "it was bad",
  good: "it was good",
  unknown: "not known",
};

/** The same as something to choose. */
export const workTitles: Readonly<Record<WorkDone, string>> = {
  renewed: "renew",
  repaired: "repair",
  cleaned: "clean",
  oiled: "oil (temporary)",
  "re-pinned": "re-pin the plug",
  spliced: "splice in a new plug",
  "carried-over": "carry over to the new part",
  adapted: "adapt to fit",
  fitted: "fit",
  refitted: "prove good and put back",
  "leak-stopped": "find and stop the leak",
  other: "something else",
};

/** The name of what is worked on: `blower motor M1`, or the words somebody entered. */
export const workName = (circuit: Circuit, { part, what }: Pick<WorkEntry, "part" | "what">): string =>
  part ? repairName(circuit, [part]) : what;

/** The same for somebody without the diagram: `blower motor`, `vent tube of blower motor`. */
export function plainWorkName(circuit: Circuit, { part, what, adapts }: WorkEntry): string {
  if (part) return partName(circuit, part);
  return adapts ? adaptationThing(circuit, adapts.work, adapts.part, partName(circuit, adapts.part)) : what;
}

/** A line of work in words: `blower motor M1 renewed (HW-2204)`. */
export function workText(circuit: Circuit, line: WorkEntry, name = workName(circuit, line)): string {
  const words = `${name}${line.done === "spliced" ? ":" : ""} ${doneWords[line.done]}`;
  const number = line.number ? ` (${line.number})` : "";
  return `${words}${number}${isTemporary(line) ? ", a temporary repair" : ""}`;
}

/** A line that is still to be done: `blower motor M1: renew`. */
export const plannedText = (circuit: Circuit, line: WorkEntry): string =>
  `${workName(circuit, line)}: ${workTitles[line.done]}${line.number ? ` (${line.number})` : ""}`;

/** Why a line is proposed. */
export function proposalText(reason: WorkReason): string {
  switch (reason.kind) {
    case "verdict":
      return "the verdict names it";
    case "seen":
      return `seen ${reason.seen}`;
    case "chosen":
      return "chosen on Parts";
    case "part":
      return `${reason.number} needs it`;
  }
}
