import { sortCountSchema } from "@core/access/sortCount";
import { trayNoteKinds } from "@core/access/tray";
import type { Circuit } from "@core/circuit/circuit";
import { parseFaultId, suspectGroupId } from "@core/fault/faultId";
import { readingSchema } from "@core/predict/reading";
import { proofFindingSchema } from "@core/proof/proofFinding";
import { proofSteps } from "@core/proof/proofRun";
import type { TrailLine } from "@db/repositories/events.server";
import { faultWords, repairName } from "@words/partName";
import { judgedWords, proofStepTitle } from "@words/proofWords";
import { stageWords } from "@words/stateWords";
import { evidenceText, resultText } from "@words/tests/testText";
import { trayNoteText } from "@words/trayWords";
import { doneWords, oldPartWords } from "@words/workWords";
import { z } from "zod";
import { findingText } from "../check/checkView.server";

const said = (value: unknown): string =>
  typeof value === "string" ? value : value === null || value === undefined ? "" : JSON.stringify(value);

/** The word for a stored value; the value itself if the list does not have it. */
const wordFor = (words: Readonly<Record<string, string>>, value: unknown): string =>
  words[said(value)] ?? said(value);

function readingWords(circuit: Circuit, value: unknown): string {
  const parsed = readingSchema.safeParse(value);
  return parsed.success ? `${evidenceText(circuit, parsed.data)}: ${resultText(parsed.data)}` : said(value);
}

function checkWords(circuit: Circuit, about: TrailLine["about"]): string {
  const step = proofSteps(circuit).find(({ id }) => id === about.step);
  const finding = proofFindingSchema.safeParse(about.finding);
  const found = finding.success ? findingText(finding.data) : said(about.finding);
  return `${step ? proofStepTitle(step) : said(about.step)}: ${found}, ${wordFor(judgedWords, about.judged)}`;
}

/** A fault in words by its id; a cause outside the list has no id to read. */
function faultText(circuit: Circuit, value: unknown): string {
  const names = parseFaultId(said(value));
  if (!names.ok) return "something outside the circuit";
  return names.value
    .map((name) => {
      const part = name.where.split(/[.:/]/)[0] ?? name.where;
      return `${repairName(circuit, [part])} ${faultWords(suspectGroupId([name]))}`;
    })
    .join(", then ");
}

const partList = (circuit: Circuit, value: unknown): string =>
  Array.isArray(value) ? repairName(circuit, value.map(String)) : said(value);

const outcomeWords: Readonly<Record<string, string>> = {
  pending: "final check due",
  failed: "the final check failed",
  held: "the repair held",
  withdrawn: "undone before the final check",
  "came-back": "the vehicle came back",
};

/** What became of some screws, with the words that explain it. */
const trayNoteSchema = z.object({
  ...sortCountSchema.shape,
  kind: z.enum(trayNoteKinds),
  words: z.string(),
});

/** What became of a screw, as the trail keeps it. */
function trayLine(about: TrailLine["about"]): string {
  const note = trayNoteSchema.safeParse(about);
  return note.success ? trayNoteText(note.data) : said(about);
}

/** A line of work as the trail keeps it. */
const workLine = (about: TrailLine["about"]): string =>
  `${said(about.what)}, ${wordFor(doneWords, about.done)}, ${said(about.state)}`;

/** A tick of a removal step, as the trail keeps it. */
function tickLine(about: TrailLine["about"], steps: ReadonlyMap<string, string>): string {
  const step = steps.get(said(about.step)) ?? said(about.step);
  const way = about.way === "back" ? "refitting" : "removal";
  return `${step}, ${way}${about.reason ? `, before its turn: ${said(about.reason)}` : ""}`;
}

/**
 * One line of a job's history in words.
 * @param steps titles of the access steps by their ids
 */
export function trailWords(
  circuit: Circuit,
  { what, about }: Pick<TrailLine, "what" | "about">,
  steps: ReadonlyMap<string, string> = new Map(),
): string {
  const struck = about.at ? "deleted" : "restored";
  switch (what) {
    case "opened":
      return `Job opened: ${said(about.words) || "no complaint recorded"}`;
    case "stage":
      return `Stage changed from ${wordFor(stageWords, about.from)} to ${wordFor(stageWords, about.to)}`;
    case "words":
      return `Complaint changed to: ${said(about.to)}`;
    case "parts-in":
      return about.to ? "Ordered parts arrived" : "Ordered parts not here after all";
    case "promised":
      return about.to ? `Promised for ${said(about.to).replace("T", " ")}` : "Promise removed";
    case "circuit":
      return `Moved from circuit ${said(about.from)} to ${said(about.to)}`;
    case "deleted":
      return about.at ? "Deleted" : "Restored";
    case "reading":
      return `Reading ${said(about.number)}: ${readingWords(circuit, about.reading)}`;
    case "reading-struck":
      return `Reading ${said(about.number)} ${struck}`;
    case "aside":
      return `${about.stored ? "Saved after all" : "Discarded, as the job had changed"}: ${said(about.words)}${
        about.who ? `, sent by ${said(about.who)}` : ""
      }`;
    case "note":
      return `Note: ${said(about.words) || "a photo"}`;
    case "note-struck":
      return `Note ${struck}: ${said(about.words)}`;
    case "recording":
      return "Recording saved";
    case "recording-struck":
      return `Recording ${struck}`;
    case "proof":
      return `Final check, ${checkWords(circuit, about)}`;
    case "work":
      return `Work listed: ${workLine(about)}`;
    case "work-changed":
      return `Work changed: ${workLine(about)}`;
    case "work-struck":
      return `Work ${struck}: ${workLine(about)}`;
    case "tray-note":
      return `Screws: ${trayLine(about)}`;
    case "tray-note-struck":
      return `Screws, ${struck}: ${trayLine(about)}`;
    case "tick":
      return `Step done: ${tickLine(about, steps)}`;
    case "tick-struck":
      return `Step ${struck}: ${tickLine(about, steps)}`;
    case "fitted":
      return `Fitted ${partList(circuit, about.parts)} at ${Math.round(100 * Number(about.p))} % belief`;
    case "fitting":
      return `Fitted ${partList(circuit, about.parts)}: ${wordFor(outcomeWords, about.outcome)}`;
    case "old-part":
      return `Old parts: ${
        Object.entries(about)
          .map(([part, state]) => `${repairName(circuit, [part])} ${wordFor(oldPartWords, state)}`)
          .join(", ") || oldPartWords.unknown
      }`;
    case "estimate":
      return `${about.kind === "bill" ? "Bill" : "Estimate"} ${said(about.number)} saved`;
    case "approved":
      return `Estimate ${said(about.number)} approved by ${said(about.by)}`;
    case "closed":
      return `Closed: ${faultText(circuit, about.fault)}`;
    case "counted":
      return about.counted === 1 ? "The shop learns from it" : "The shop does not learn from it";
    case "reopened":
      return `Closing undone: ${faultText(circuit, about.fault)}`;
    default:
      return `${what} ${said(about)}`;
  }
}
