import type { Reading } from "@core/predict/reading";
import { database } from "@db/database.server";
import { describeCircuits } from "@db/repositories/circuits.server";
import { listJobs } from "@db/repositories/jobs.server";
import { readingBeingTyped } from "../entries/takeEntry.server";
import { diagnosisOf } from "../job/diagnosis.server";
import { type JobView, jobViewAt } from "../job/jobView.server";
import { layoutOf } from "../sheet/layouts.server";
import { requestsFirst } from "../shell/turnTaking.server";
import { foresee } from "./lookahead.server";
import { probeOptions, probeView } from "./probeView.server";
import { collectAfterStart } from "./quietCollection.server";

const mostWarmed = 4;

/**
 * Goes through an entry of the look a job offers as the bench would send it, storing nothing: what a process does for the first
 * time takes it several times as long.
 * @returns the reading it went through with; null where the job offers no look
 */
export async function rehearse(view: JobView): Promise<Reading | null> {
  const [look] = (await diagnosisOf(view, probeOptions)).next;
  if (!look) return null;
  const sent = new Request("http://127.0.0.1/", {
    method: "POST",
    body: new URLSearchParams({
      intent: "reading",
      token: crypto.randomUUID(),
      look: JSON.stringify(look.test),
      seen: look.outcomes[0]?.seen ?? "",
      value: String(look.outcomes[0]?.value ?? ""),
    }),
  });
  const typed = await readingBeingTyped(String(view.job.id), await sent.formData());
  await probeView(view);
  return typed?.reading ?? null;
}

/**
 * Makes the newest open jobs ready in the background: their circuits compiled and laid out, and what each job's
 * next look can show worked out, so that the first reading entered is answered like every other.
 */
export async function warmUp(): Promise<void> {
  await describeCircuits(await database());
  const open = (await listJobs()).filter(({ stage }) => stage === "probing").slice(0, mostWarmed);
  for (const { id } of open) {
    const view = await jobViewAt(String(id));
    await layoutOf(view.engine.netlist);
    await rehearse(view);
    await foresee(view);
  }
  await requestsFirst();
  collectAfterStart();
}
