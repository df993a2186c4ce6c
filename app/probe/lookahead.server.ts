import type { DiagnoseOptions, NextLook } from "@core/diagnose/diagnose";
import { testModels } from "@core/predict/observations/index";
import { type Reading, readingSchema } from "@core/predict/reading";
import { diagnosisOf, workOutAhead } from "../job/diagnosis.server";
import { type JobView, jobViewAt, standingNumbers, standingReadings } from "../job/jobView.server";
import { requestsFirst } from "../shell/turnTaking.server";
import { probeOptions, probeView } from "./probeView.server";
import { collectWhileQuiet } from "./quietCollection.server";

/** Displays less likely than this are not worked out before they are seen, as they are not offered to be tapped; words are. */
const leastLikely = 0.02;
/** Looks whose outcomes are worked out: the one offered and those that come up when it is passed over. */
const looksForeseen = 3;

const drawnFirstMilliseconds = 100;

/** Which job's outcomes are being worked out: a newer state of the job puts an end to an older one's. */
const latest = new Map<number, JobView>();

/** Jobs as their pages were last made, the longest unseen forgotten first. */
const shown = new Map<number, JobView>();
const mostShown = 30;

/**
 * Works out what a reading means while it is typed or on its way to the disk, from the job as it was last shown: where that is
 * still how it stands, the page that follows has its diagnosis at hand.
 */
export async function expectReading(jobId: number, reading: Reading): Promise<void> {
  const view = shown.get(jobId);
  // What fails here fails again where it is asked for, and is answered there.
  if (view)
    await workOutAhead(view, [...standingReadings(view), reading], aheadOf(view)).catch(() => undefined);
}

/** How a diagnosis with one reading more is asked for. */
const aheadOf = (view: JobView): DiagnoseOptions => ({
  ...probeOptions,
  numbers: [...standingNumbers(view), view.stored.length + 1],
});

/** The probe page of a job as it now is; what the look it offers may show is worked out once it is sent. */
export async function probePage(id: string | undefined) {
  const view = await jobViewAt(id);
  const page = await probeView(view);
  shown.delete(view.job.id);
  shown.set(view.job.id, view);
  if (shown.size > mostShown) shown.delete(shown.keys().next().value as number);
  void foresee(view);
  return page;
}

/**
 * Works out what every likely outcome of the look now offered would mean, while the technician is at it: the
 * answer is then at hand when the outcome is entered.
 */
export async function foresee(view: JobView): Promise<void> {
  try {
    await workAhead(view);
  } catch {
    // What fails here fails again where it is asked for, and is answered there.
  }
}

async function workAhead(view: JobView): Promise<void> {
  latest.set(view.job.id, view);
  const readings = standingReadings(view);
  const ahead = aheadOf(view);
  const { next } = await diagnosisOf(view, probeOptions);
  const outcomes = next.slice(0, looksForeseen).flatMap(outcomesOf);
  // The page that was asked for is drawn first, often by a browser on this machine.
  await new Promise((resolve) => setTimeout(resolve, drawnFirstMilliseconds));
  for (const { test, seen, value } of outcomes) {
    await requestsFirst();
    if (latest.get(view.job.id) !== view) return;
    const reading = outcomeReading(test, seen, value);
    if (reading) await workOutAhead(view, [...readings, reading], ahead);
  }
  if (latest.get(view.job.id) === view) latest.delete(view.job.id);
  await requestsFirst();
  collectWhileQuiet();
}

/** What a look may show, likeliest first: every word it can be answered with, and every display the page offers to tap. */
function outcomesOf({ test, outcomes }: NextLook) {
  const shown = outcomes
    .filter(({ value, p }) => value === null || p >= leastLikely)
    .sort((a, b) => b.p - a.p)
    .map(({ seen, value }) => ({ test, seen, value }));
  const model = testModels[test.test];
  const others =
    model.gives === "word" ? model.outcomes.filter((word) => !shown.some(({ seen }) => seen === word)) : [];
  return [...shown, ...others.map((seen) => ({ test, seen, value: null }))];
}

/** The reading an outcome would make, as the page would send it; null for what is not a reading. */
function outcomeReading(test: object, seen: string, value: number | null): Reading | null {
  const shown = value === null ? null : Number(value.toPrecision(3));
  for (const result of [{ seen }, { volts: shown }, { amps: shown }, { ohms: shown }]) {
    const parsed = readingSchema.safeParse({ ...test, ...result });
    if (parsed.success) return parsed.data;
  }
  return null;
}
