// A shop with many open jobs on many circuits, in a data folder of its own.
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { closeDatabase, database } from "@db/database.server";
import { loadDemoWorld } from "@db/demoWorld.server";
import { addCircuit, findCircuit, listCircuits } from "@db/repositories/circuits.server";
import { addJob } from "@db/repositories/jobs.server";
import { addVehicle } from "@db/repositories/vehicles.server";

/** Makes such a shop; resolves with its folder and the numbers of its jobs, all being probed. */
export async function manyJobs(
  jobs: number,
  circuits: number,
): Promise<{
  readonly folder: string;
  readonly jobs: readonly number[];
  /** A speed of each job's circuit that moves air, by job. */
  readonly speeds: ReadonlyMap<number, string>;
}> {
  const folder = mkdtempSync(join(tmpdir(), "airway-many-jobs-"));
  process.env.AIRWAY_DATA = folder;
  const store = await database();
  await loadDemoWorld(store, join(process.cwd(), "demo"), new Date());
  const shipped = await Promise.all((await listCircuits()).map(({ rowId }) => findCircuit(rowId)));
  const own = shipped.flatMap((circuit) => circuit ?? []);
  const ids: string[] = [];
  const speeds = new Map<number, string>();
  const numbers = await store.write(async (transaction) => {
    for (let i = 0; i < circuits; i++) {
      const like = own[i % own.length];
      if (!like) throw new Error("the demo has no circuit");
      const id = `${like.id}-${i}`;
      await addCircuit({ ...like, id, title: `${like.title}, number ${i}` }, transaction);
      ids.push(id);
    }
    const made: number[] = [];
    for (let i = 0; i < jobs; i++) {
      const circuitId = ids[i % ids.length] ?? "";
      const vehicle = await addVehicle(
        { label: `van ${i}`, model: "Harrow Whimbrel van", circuitId },
        transaction,
      );
      const job = await addJob(
        { formToken: `many-${i}`, vehicleId: vehicle.id, circuitId, words: `case ${i}` },
        transaction,
      );
      made.push(job);
      speeds.set(job, own[(i % circuits) % own.length]?.settings.at(-1) ?? "");
    }
    return made;
  });
  await closeDatabase();
  return { folder, jobs: numbers, speeds };
}
