import { readingSchema } from "@core/predict/reading";
import { proofFindingSchema } from "@core/proof/proofFinding";
import type { TrailLine } from "@db/repositories/events.server";
import { faultWords } from "@words/partName";
import { evidenceText, resultText } from "@words/tests/testText";

const said = (value: unknown): string =>
  typeof value === "string" ? value : value === null || value === undefined ? "" : JSON.stringify(value);

function readingWords(value: unknown): string {
  const parsed = readingSchema.safeParse(value);
  return parsed.success ? `${evidenceText(null, parsed.data)}: ${resultText(parsed.data)}` : said(value);
}

function findingWords(value: unknown): string {
  const parsed = proofFindingSchema.safeParse(value);
  if (!parsed.success) return said(value);
  const finding = parsed.data;
  switch (finding.by) {
    case "amps":
      return `${finding.amps} A`;
    case "volts":
      return `${finding.volts} V`;
    case "check":
      return finding.good ? "good" : "not good";
    default:
      return finding.seen;
  }
}

/** A fault in words by its id; a cause outside the list has no id to read. */
const faultText = (value: unknown): string => {
  const id = said(value);
  return id.includes(":") ? faultWords(id) : "something outside the circuit";
};

const partList = (value: unknown): string => (Array.isArray(value) ? value.join(", ") : said(value));

/** One line of a job's history in words. */
export function trailWords({ what, about }: Pick<TrailLine, "what" | "about">): string {
  const struck = about.at ? "deleted" : "restored";
  switch (what) {
    case "opened":
      return `Job opened: ${said(about.words) || "no complaint recorded"}`;
    case "stage":
      return `Stage changed from ${said(about.from)} to ${said(about.to)}`;
    case "words":
      return `Complaint changed to: ${said(about.to)}`;
    case "circuit":
      return `Moved from circuit ${said(about.from)} to ${said(about.to)}`;
    case "deleted":
      return about.at ? "Deleted" : "Restored";
    case "reading":
      return `Reading ${said(about.number)}: ${readingWords(about.reading)}`;
    case "reading-struck":
      return `Reading ${said(about.number)} ${struck}`;
    case "note":
      return `Note: ${said(about.words) || "a photo"}`;
    case "note-struck":
      return `Note ${struck}: ${said(about.words)}`;
    case "recording":
      return "Recording saved";
    case "recording-struck":
      return `Recording ${struck}`;
    case "proof":
      return `Final check, ${said(about.step)}: ${findingWords(about.finding)}, ${said(about.judged)}`;
    case "fitted":
      return `Fitted ${partList(about.parts)} at ${Math.round(100 * Number(about.p))} %`;
    case "fitting":
      return `Fitted ${partList(about.parts)}: ${said(about.outcome)}`;
    case "estimate":
      return `${about.kind === "bill" ? "Bill" : "Estimate"} ${said(about.number)} stored`;
    case "approved":
      return `Estimate ${said(about.number)} approved, ${said(about.by)}`;
    case "closed":
      return `Closed: ${faultText(about.fault)}`;
    case "counted":
      return about.counted === 1 ? "The shop learns from it" : "The shop does not learn from it";
    case "reopened":
      return `Closing undone: ${faultText(about.fault)}`;
    default:
      return `${what} ${said(about)}`;
  }
}
