import { database } from "@db/database.server";
import { describeCircuits } from "@db/repositories/circuits.server";
import { listJobs } from "@db/repositories/jobs.server";
import { layoutOf } from "./drawing/layouts.server";
import { foresee } from "./foresight.server";
import { jobViewAt } from "./jobView.server";
import { collectAfterStart } from "./quietCollection.server";
import { requestsFirst } from "./turnTaking.server";

const mostWarmed = 4;

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
    await foresee(view);
  }
  await requestsFirst();
  collectAfterStart();
}
