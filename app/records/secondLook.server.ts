import { faultLabel } from "@core/diagnose/belief/learnedPrior";
import { secondLook, type Taught } from "@core/records/secondLook";
import { closureOf } from "@db/repositories/closures.server";
import {
  closingsWaiting,
  jobsWaiting,
  type StoredSecondLook,
  secondLooks,
  storeSecondLook,
} from "@db/repositories/secondLooks.server";
import { faultLabelWords } from "@words/partName";
import { findingsAsked } from "../job/findingsAsked.server";
import { jobViewAt } from "../job/jobView.server";

/** Closings looked at in one request; each takes a diagnosis. */
const atOnce = 25;

/** What the shop's counts should hold of a job that was closed earlier. */
async function taughtAgain(jobId: number): Promise<{ before: Taught; after: Taught } | null> {
  const stored = await closureOf(jobId);
  if (!stored) return null;
  const { kind, mode, counted, closure } = stored;
  const before: Taught = { kind, mode, counted };
  const view = await jobViewAt(String(jobId));
  const asked = findingsAsked(view);
  const proved = asked.flatMap(({ choices }) =>
    choices.flatMap(({ family, proved: own }) => (own ? [family] : [])),
  );
  const temporary = asked.some((own) => own.temporary);
  const told = secondLook(closure, counted, proved, temporary);
  if (told.kind === "keeps") return { before, after: before };
  if (told.kind === "stops") return { before, after: { ...before, counted: false } };
  const variant = view.engine.variants.find(({ family }) => family === told.fault);
  return {
    before,
    after: variant ? { ...faultLabel(view.engine, variant), counted: true } : before,
  };
}

/** Looks again at some closings that wait for it; resolves once what it changed is on disk. */
export async function lookAgain(): Promise<void> {
  for (const jobId of await jobsWaiting(atOnce)) {
    const taught = await taughtAgain(jobId);
    if (taught) await storeSecondLook(jobId, taught.before, taught.after, new Date());
  }
}

const taughtWords = ({ kind, mode }: Taught): string => faultLabelWords(kind, mode);

const lookView = ({ jobId, before, after, undone }: StoredSecondLook) => ({
  jobId,
  undone,
  before: taughtWords(before),
  after: after.counted ? `Now it counts as ${taughtWords(after)}.` : "Now it does not count.",
});

/** How many older closings wait for a second look, and what it changed so far. */
export async function secondLookView() {
  const [left, looks] = await Promise.all([closingsWaiting(), secondLooks()]);
  return { left, atOnce, changed: looks.map(lookView) };
}
export type SecondLookData = Awaited<ReturnType<typeof secondLookView>>;
