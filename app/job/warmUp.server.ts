import { database } from "@db/database.server";
import { describeCircuits } from "@db/repositories/circuits.server";
import { listJobs } from "@db/repositories/jobs.server";
import { layoutOf } from "../sheet/layouts.server";
import { jobViewAt } from "./jobView.server";

/** Open jobs whose circuits are compiled at a start; the others are when their page is opened. */
const mostWarmed = 4;

/** Compiles and lays out the circuits of the newest open jobs, so that their first page need not wait for it. */
export async function warmUp(): Promise<void> {
  await describeCircuits(await database());
  const open = (await listJobs()).filter(({ stage }) => stage === "probing").slice(0, mostWarmed);
  for (const { id } of open) {
    const { engine } = await jobViewAt(String(id));
    await layoutOf(engine.netlist);
  }
}
