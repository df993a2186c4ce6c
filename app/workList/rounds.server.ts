import type { WorkLine } from "@core/workList/workLine";
import { fittingsOf } from "@db/repositories/fittings.server";
import { plannedText, workName, workText } from "@words/workWords";
import { type JobFacts, presentRound } from "../job/jobView.server";

/** What a round came to. */
export type RoundOutcome = "open" | "check-due" | "failed" | "held";

/** A line of work as pages show it. */
export const lineView = (circuit: JobFacts["circuit"], line: WorkLine) => ({
  ...line,
  name: workName(circuit, line),
  words: line.state === "planned" ? plannedText(circuit, line) : workText(circuit, line),
});
export type LineView = ReturnType<typeof lineView>;

/** A series of tests, work and a final check. */
export interface RoundView {
  readonly number: number;
  readonly outcome: RoundOutcome;
  readonly lines: readonly LineView[];
}

/** A job's rounds with their work; every failed check ends one. */
export async function roundsOf(facts: JobFacts): Promise<RoundView[]> {
  const { job, circuit, works } = facts;
  const count = presentRound(facts);
  const fittings = await fittingsOf(job.id);
  const due = fittings.at(-1)?.outcome === "pending";
  const present: RoundOutcome = job.stage === "closed" ? "held" : due ? "check-due" : "open";
  return Array.from({ length: count }, (_, at) => ({
    number: at + 1,
    outcome: at < count - 1 ? "failed" : present,
    lines: works.filter(({ round }) => round === at + 1).map((line) => lineView(circuit, line)),
  }));
}
