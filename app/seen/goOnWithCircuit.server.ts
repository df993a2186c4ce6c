import { database } from "@db/database.server";
import { keepLearnedCircuit } from "@db/repositories/circuits.server";
import { addJob } from "@db/repositories/jobs.server";
import { insertReading } from "@db/repositories/readings.server";
import { goOnAs, type SeenJob, seenReadingsOf } from "@db/repositories/seenJobs.server";
import { addVehicle } from "@db/repositories/vehicles.server";
import { data } from "react-router";
import { randomId } from "../text/randomId";
import { learnSeen } from "./seenEngine.server";
import { seenFactsOf } from "./seenJobView.server";

/** What a person says of the vehicle when its job goes on. */
interface Named {
  readonly token: string;
  readonly label: string;
  readonly model: string;
}

/**
 * Opens a job like any other from a job without a diagram: with the likeliest wiring as its circuit, and the readings
 * in that circuit's terms. Sent twice, it opens one.
 * @returns the address of the job
 */
export async function goOnWithCircuit(job: SeenJob, { token, label, model }: Named): Promise<string> {
  if (job.jobId !== null) return `/jobs/${job.jobId}`;
  const stored = await seenReadingsOf(job.id);
  const vehicleName = label || job.label || `no diagram ${job.id}`;
  const { circuit, readings } = await learnSeen(await seenFactsOf(job, stored), {
    id: `no-diagram-${job.id}`,
    title: `${vehicleName}, worked out without a diagram`.slice(0, 120),
  });
  const active = stored.filter(({ struckAt }) => !struckAt);
  const store = await database();
  const jobId = await store.write((transaction) =>
    goOnAs(
      job.id,
      async () => {
        const rowId = await keepLearnedCircuit(circuit, transaction);
        const vehicle = await addVehicle(
          { label: vehicleName, model: model || "Make and model not known", circuitId: rowId },
          transaction,
        );
        const id = await addJob(
          { formToken: token, vehicleId: vehicle.id, circuitId: rowId, words: job.words },
          transaction,
        );
        for (const { from, reading } of readings) {
          const takenAt = active[from]?.takenAt ?? new Date();
          await insertReading({ id: randomId(), jobId: id, reading, takenAt }, transaction);
        }
        return id;
      },
      transaction,
    ),
  );
  if (jobId === null) throw data("There is no such job.", { status: 404 });
  return `/jobs/${jobId}/probe`;
}
