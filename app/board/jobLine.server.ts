import { percent } from "@core/units/wording";
import { type JobLine, jobLinesOf, revisionOf, setJobLine } from "@db/repositories/jobLines.server";
import type { Job } from "@db/repositories/jobs.server";
import { repairName } from "@words/partName";
import { cardLine, testWords } from "@words/tests/testText";
import { type JobFacts, jobAt, jobFactsAt } from "../job/jobView.server";
import { logger } from "../shell/log.server";
import { whatIsNext } from "./whatIsNext.server";

/** A job's line, and whether its testing is over. */
type WorkedOut = Pick<JobLine, "line" | "decided">;

/** The next step of a job that is being tested: the verdict, or the next test. */
async function testingLine(facts: JobFacts): Promise<WorkedOut> {
  const { circuit } = facts;
  const { verdict, test } = await whatIsNext(facts);
  const replaced = `${repairName(circuit, verdict.replace)}, ${percent(verdict.p)}`;
  if (verdict.state !== "open") return { line: `Verdict: ${replaced}`, decided: true };
  return test
    ? { line: `Next test: ${cardLine(testWords(circuit, test))}`, decided: false }
    : { line: `Nothing is left to test. Most likely: ${replaced}`, decided: true };
}

/** The one line about a job on the board: what it waits for, what was fitted, or the next step. */
async function lineOf({ id, stage, fitted, found, partsInAt }: Job): Promise<WorkedOut> {
  if (stage === "probing") return testingLine(await jobFactsAt(String(id)));
  const { circuit } = await jobAt(String(id));
  const parts = repairName(circuit, fitted ?? []);
  const decided = (line: string): WorkedOut => ({ line, decided: true });
  if (stage === "part-awaited")
    return decided(partsInAt ? `Arrived: ${parts}. Fit it next.` : `Waiting for: ${parts}`);
  return decided(
    stage === "proof-due" ? `Fitted: ${parts}. Final check due.` : (found ?? `Fitted: ${parts}.`),
  );
}

const notWorkedOut = "The next test could not be worked out. Open the job to see why.";

/** Works a job's line out and stores it. A line that fails is logged, and not tried again until the job changes. */
async function makeJobLine(job: Job): Promise<void> {
  const revision = await revisionOf(job.id);
  const line = await lineOf(job).catch((cause: unknown) => {
    logger.error(cause, `the board's line of job ${job.id} failed`);
    return { line: notWorkedOut, decided: false };
  });
  await setJobLine(job.id, line, { revision, school: job.school });
}

/** Lines to be worked out, by job; one at a time, so that no page waits for them. */
const waiting = new Map<number, Job>();
let working: Promise<void> | null = null;

/** Queues the lines of some jobs to be worked out in the background. */
function refreshLines(jobs: readonly Job[]): void {
  for (const job of jobs) waiting.set(job.id, job);
  if (waiting.size > 0) working ??= work().finally(() => (working = null));
}

async function work(): Promise<void> {
  for (const [id, job] of waiting) {
    waiting.delete(id);
    await makeJobLine(job).catch((cause: unknown) =>
      logger.error(cause, `the board's line of job ${id} was not stored`),
    );
  }
}

/** Drops the queued lines; resolves once the one in progress is finished. */
export async function stopLines(): Promise<void> {
  waiting.clear();
  await working;
}

/**
 * The board's lines for some jobs, by job; null while a line is being worked out for the first time. Outdated lines are queued
 * again.
 */
export async function boardLines(jobs: readonly Job[]): Promise<Map<number, WorkedOut | null>> {
  const stored = await jobLinesOf(jobs.map(({ id }) => id));
  refreshLines(jobs.filter(({ id }) => !stored.get(id)?.isFresh));
  return new Map(jobs.map(({ id }) => [id, stored.get(id) ?? null]));
}

/** Whether any lines are being worked out. */
export const isRefreshing = (): boolean => working !== null;
