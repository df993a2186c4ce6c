import type { OldPartState } from "@core/diagnose/history/failedRepair";
import type { WorkLine } from "@core/workList/workLine";
import { fittingsOf } from "@db/repositories/fittings.server";
import { plannedText, workName, workText } from "@words/workWords";
import { findingsAsked } from "../job/findingsAsked.server";
import { type JobFacts, type JobView, noteLines, presentRound } from "../job/jobView.server";

/** What a round came to. */
export type RoundOutcome = "open" | "check-due" | "failed" | "held";

/** A line of work as pages show it. */
export const lineView = ({ circuit, notes }: Pick<JobFacts, "circuit" | "notes">, line: WorkLine) => ({
  ...line,
  notes: noteLines(notes.filter(({ workId }) => workId === line.id)),
  name: workName(circuit, line),
  words: line.state === "planned" ? plannedText(circuit, line) : workText(circuit, line),
});
export type LineView = ReturnType<typeof lineView>;

/** A series of tests, work and a final check. */
export interface RoundView {
  readonly number: number;
  readonly outcome: RoundOutcome;
  readonly lines: readonly LineView[];
  /** Old parts of a failed round that no reading proves bad: what they turned out to be is asked. */
  readonly oldParts: readonly OldPartAsked[];
}

/** An old part whose state is asked. */
export interface OldPartAsked {
  readonly part: string;
  readonly name: string;
  readonly state: OldPartState | null;
}

function oldPartsAsked(view: JobView, round: number): OldPartAsked[] {
  const { circuit, repairs } = view;
  const { parts = [], found = {} } = repairs[round - 1] ?? {};
  const proved = findingsAsked(view).flatMap((own) =>
    own.round === round && own.choices.some((choice) => choice.proved) ? [own.part] : [],
  );
  return parts
    .filter((part) => !proved.includes(part))
    .map((part) => ({ part, name: workName(circuit, { part, what: part }), state: found[part] ?? null }));
}

/** A job's rounds with their work; every failed check ends one. */
export async function roundsOf(facts: JobView): Promise<RoundView[]> {
  const { job, works } = facts;
  const count = presentRound(facts);
  const fittings = await fittingsOf(job.id);
  const due = fittings.at(-1)?.outcome === "pending";
  const present: RoundOutcome = job.stage === "closed" ? "held" : due ? "check-due" : "open";
  return Array.from({ length: count }, (_, at) => ({
    number: at + 1,
    outcome: at < count - 1 ? "failed" : present,
    lines: works.filter(({ round }) => round === at + 1).map((line) => lineView(facts, line)),
    oldParts: at < count - 1 ? oldPartsAsked(facts, at + 1) : [],
  }));
}
