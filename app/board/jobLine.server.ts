import { percent } from "@core/units/wording";
import { jobLinesOf, revisionOf, setJobLine } from "@db/repositories/jobLines.server";
import type { Job } from "@db/repositories/jobs.server";
import { repairName } from "@words/partName";
import { cardLine, testWords } from "@words/tests/testText";
import { type JobFacts, jobAt, jobFactsAt } from "../job/jobView.server";
import { logger } from "../shell/log.server";
import { whatIsNext } from "./whatIsNext.server";

/** The next step of a job that is being tested: the verdict, or the next test. */
async function testingLine(facts: JobFacts): Promise<string> {
  const { circuit } = facts;
  const { verdict, test } = await whatIsNext(facts);
  if (verdict.state !== "open")
    return `Verdict: ${repairName(circuit, verdict.replace)}, ${percent(verdict.p)}`;
  return test ? `Next test: ${cardLine(testWords(circuit, test))}` : "Nothing is left to test.";
}

/** The one line about a job on the board: what it waits for, what was fitted, or the next step. */
async function lineOf({ id, stage, fitted, found }: Job): Promise<string> {
  if (stage === "probing") return testingLine(await jobFactsAt(String(id)));
  const { circuit } = await jobAt(String(id));
  const parts = repairName(circuit, fitted ?? []);
  if (stage === "part-awaited") return `Waiting for: ${parts}`;
  return stage === "proof-due" ? `Fitted: ${parts}. Final check due.` : (found ?? `Fitted: ${parts}.`);
}

const notWorkedOut = "The next test could not be worked out. Open the job to see why.";

/** Works a job's line out and stores it. A line that fails is logged, and not tried again until the job changes. */
async function makeJobLine(job: Job): Promise<void> {
  const revision = await revisionOf(job.id);
  const line = await lineOf(job).catch((cause: unknown) => {
    logger.error(cause, `the board's line of job ${job.id} failed`);
    return notWorkedOut;
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
 * The board's lines for some jobs, by job; null while a line is still being worked out. Outdated lines are queued
 * again.
 */
export async function boardLines(jobs: readonly Job[]): Promise<Map<number, string | null>> {
  const stored = await jobLinesOf(jobs.map(({ id }) => id));
  refreshLines(jobs.filter(({ id }) => !stored.get(id)?.isFresh));
  return new Map(jobs.map(({ id }) => [id, stored.get(id)?.line ?? null]));
}

/** Whether any lines are being worked out. */
export const isRefreshing = (): boolean => working !== null;
