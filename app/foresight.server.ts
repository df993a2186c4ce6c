import { type Reading, readingSchema } from "@core/predict/reading";
import {
  diagnosisFrom,
  diagnosisOf,
  type JobView,
  standingNumbers,
  standingReadings,
} from "./jobView.server";
import { probeOptions } from "./probeView.server";

/** Outcomes less likely than this are not worked out before they are seen. */
const leastLikely = 0.02;

/** Which job's outcomes are being worked out: a newer state of the job puts an end to an older one's. */
const latest = new Map<number, JobView>();

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
  const numbers = standingNumbers(view);
  const ahead = { ...probeOptions, numbers: [...numbers, view.stored.length + 1] };
  const [offered] = diagnosisOf(view, probeOptions).next;
  for (const { seen, value, p } of offered?.outcomes ?? []) {
    // The page that was asked for goes first, and so does whatever else is asked meanwhile.
    await new Promise((resolve) => setTimeout(resolve, 20));
    if (latest.get(view.job.id) !== view) return;
    if (!offered || p < leastLikely) continue;
    const reading = outcomeReading(offered.test, seen, value);
    if (reading) diagnosisFrom(view, [...readings, reading], ahead);
  }
  if (latest.get(view.job.id) === view) latest.delete(view.job.id);
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
