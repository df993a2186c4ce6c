import type { CarriedReadings } from "@core/wiring/carriedReadings";
import { database } from "@db/database.server";
import { findCircuit, keepLearnedCircuit } from "@db/repositories/circuits.server";
import { addJob } from "@db/repositories/jobs.server";
import { insertReading } from "@db/repositories/readings.server";
import {
  goOnAs,
  type SeenJob,
  type StoredSeenReading,
  seenReadingsOf,
} from "@db/repositories/seenJobs.server";
import { addVehicle } from "@db/repositories/vehicles.server";
import { data } from "react-router";
import type { Transaction } from "sequelize";
import { randomId } from "../text/randomId";
import { carrySeen, learnSeen } from "./seenEngine.server";
import { seenFactsOf } from "./seenJobView.server";

/** What a person says of the vehicle when its job goes on. */
interface Named {
  readonly token: string;
  readonly label: string;
  readonly model: string;
}

const vehicleName = (job: SeenJob, label: string): string => label || job.label || `no diagram ${job.id}`;

/**
 * Opens the job that a job without a diagram goes on as, with what its readings are on its circuit.
 * @param circuitRow gives the row of its circuit
 */
async function goOn(
  job: SeenJob,
  { token, label, model }: Named,
  active: readonly StoredSeenReading[],
  { readings }: CarriedReadings,
  circuitRow: (transaction: Transaction) => Promise<string>,
): Promise<number> {
  const store = await database();
  const jobId = await store.write((transaction) =>
    goOnAs(
      job.id,
      async () => {
        const circuitId = await circuitRow(transaction);
        const vehicle = await addVehicle(
          { label: vehicleName(job, label), model: model || "Make and model not known", circuitId },
          transaction,
        );
        const id = await addJob(
          { formToken: token, vehicleId: vehicle.id, circuitId, words: job.words },
          transaction,
        );
        for (const { from, reading } of readings) {
          const { takenAt = new Date(), takenBy = null } = active[from] ?? {};
          await insertReading({ id: randomId(), jobId: id, reading, takenAt, takenBy }, transaction);
        }
        return id;
      },
      transaction,
    ),
  );
  if (jobId === null) throw data("There is no such job.", { status: 404 });
  return jobId;
}

const activeOf = async (job: SeenJob): Promise<StoredSeenReading[]> =>
  (await seenReadingsOf(job.id)).filter(({ struckAt }) => !struckAt);

/**
 * Opens a job like any other from a job without a diagram: with the likeliest wiring as its circuit, and the readings
 * in that circuit's terms. Sent twice, it opens one.
 * @returns the address of the job
 */
export async function goOnWithCircuit(job: SeenJob, named: Named): Promise<string> {
  if (job.jobId !== null) return `/jobs/${job.jobId}`;
  const active = await activeOf(job);
  const learned = await learnSeen(await seenFactsOf(job, active), {
    id: `no-diagram-${job.id}`,
    title: `${vehicleName(job, named.label)}, worked out without a diagram`.slice(0, 120),
  });
  const jobId = await goOn(job, named, active, learned, (transaction) =>
    keepLearnedCircuit(learned.circuit, transaction),
  );
  return `/jobs/${jobId}/probe`;
}

/**
 * The same with a circuit of the shelf, once the vehicle's diagram was found.
 * @param rowId of the circuit
 * @returns the address of this job's page, which then says what the diagram changed, with the numbers of the readings
 * that could not go along; null if the shelf no longer has that circuit
 */
export async function goOnWithDiagram(job: SeenJob, named: Named, rowId: string): Promise<string | null> {
  if (job.jobId !== null) return `/jobs/${job.jobId}`;
  const circuit = await findCircuit(rowId);
  if (!circuit) return null;
  const active = await activeOf(job);
  const carried = await carrySeen(await seenFactsOf(job, active), circuit);
  await goOn(job, named, active, carried, () => Promise.resolve(rowId));
  const left = carried.left.flatMap((at) => active[at]?.number ?? []);
  return left.length > 0 ? `/no-diagram/${job.id}?left=${left.join(",")}` : `/no-diagram/${job.id}`;
}
