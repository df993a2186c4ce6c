import type { Caution } from "@core/diagnose/tests/caution";
import type { Strategy } from "@core/diagnose/tests/strategy";
import type { JobRefusal } from "@core/records/jobStage";
import { type JobStage, jobStages } from "@core/records/jobStage";
import { Op, type Transaction } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";
import { JobRow, type VehicleRow } from "../models/jobModels.server";
import { ClosureRow } from "../models/memoryModels.server";
import { storedColumns } from "../storedColumns";
import { countedOf } from "./closures.server";
import { cameBack, insertFitting, settleFitting, unproven, type VerdictThen } from "./fittings.server";
import { jobRefusal, openStages, writeToJob } from "./jobGate.server";
import { insertReading, type NewReading } from "./readings.server";
import type { Vehicle } from "./vehicles.server";
import { enterParts, planAgain } from "./works.server";

export interface Job {
  readonly id: number;
  readonly vehicle: Vehicle;
  readonly circuitId: string;
  readonly words: string;
  readonly stage: JobStage;
  /** Its technician's strategy. */
  readonly school: Strategy;
  /** Cautions its technician has acknowledged; they are not shown again. */
  readonly cautionsRead: readonly Caution[];
  /** Parts fitted, if any. */
  readonly fitted: readonly string[] | null;
  readonly found: string | null;
  readonly fittedAt: Date | null;
  readonly closedAt: Date | null;
  /** When the vehicle is promised, on the shop's clock, `2026-12-24T16:00`. */
  readonly promised: string | null;
  /** When the ordered parts arrived. */
  readonly partsInAt: Date | null;
  /** The job whose repair this one came back from. */
  readonly comebackOf: number | null;
  readonly deletedAt: Date | null;
  readonly createdAt: Date;
}

const columns = storedColumns.jobs;

type JobWithVehicle = JobRow & { vehicle?: VehicleRow | null };

function jobOf(row: JobWithVehicle, vehicle: VehicleRow): Job {
  return {
    id: row.id,
    vehicle: { id: vehicle.id, label: vehicle.label, model: vehicle.model, circuitId: vehicle.circuitId },
    circuitId: row.circuitId,
    words: row.words,
    stage: columns.stage.parse(row.stage),
    school: columns.school.parse(row.school),
    cautionsRead: columns.cautionsRead.parse(row.cautionsRead),
    fitted: columns.fitted.parse(row.fitted ?? null),
    found: row.found ?? null,
    fittedAt: moment.parse(row.fittedAt ?? null),
    closedAt: moment.parse(row.closedAt ?? null),
    promised: columns.promised.parse(row.promised ?? null),
    partsInAt: moment.parse(row.partsInAt ?? null),
    comebackOf: row.comebackOf ?? null,
    deletedAt: moment.parse(row.deletedAt ?? null),
    createdAt: z.date().parse(row.createdAt),
  };
}

/** A valid moment in a column; an invalid date is refused. */
const moment = z.date().nullable();

export async function findJob(id: number): Promise<Job | null> {
  const row: JobWithVehicle | null = await JobRow.findByPk(id, { include: "vehicle" });
  return row?.vehicle ? jobOf(row, row.vehicle) : null;
}

type Stages = readonly JobStage[];

/** Jobs, and the numbers of those whose rows cannot be read; one bad row does not keep others from being read. */
export interface ReadJobs {
  readonly jobs: readonly Job[];
  readonly unreadable: readonly number[];
}

/**
 * Jobs in some stages, the newest first; deleted ones are left out.
 * @param closedFrom jobs closed before this moment are left out
 */
export async function readJobs(stages: Stages, limit = 500, closedFrom?: Date): Promise<ReadJobs> {
  const rows: JobWithVehicle[] = await JobRow.findAll({
    where: {
      stage: [...stages],
      deletedAt: null,
      ...(closedFrom ? { closedAt: { [Op.gte]: closedFrom } } : {}),
    },
    include: "vehicle",
    order: [
      ["createdAt", "DESC"],
      ["id", "DESC"],
    ],
    limit,
  });
  const [jobs, unreadable]: [Job[], number[]] = [[], []];
  for (const row of rows) {
    if (!row.vehicle) continue;
    try {
      jobs.push(jobOf(row, row.vehicle));
    } catch {
      unreadable.push(row.id);
    }
  }
  return { jobs, unreadable };
}

/** Readable jobs in some stages, the newest first; deleted ones are left out. */
export const listJobs = async (stages: Stages = jobStages, limit?: number): Promise<readonly Job[]> =>
  (await readJobs(stages, limit)).jobs;

/** Jobs that came back after a job's repair, oldest first. */
export async function comebacksOf(id: number): Promise<number[]> {
  const rows = await JobRow.findAll({
    where: { comebackOf: id, deletedAt: null },
    attributes: ["id"],
    order: [["id", "ASC"]],
  });
  return rows.map((row) => row.id);
}

export interface NewJob {
  /** Token of the form it came from; the same form sent twice opens one job. */
  readonly formToken: string;
  readonly vehicleId: number;
  readonly circuitId: string;
  readonly words: string;
  readonly school?: Strategy;
  readonly comebackOf?: number;
  readonly promised?: string;
}

/** The job a form already opened; null if it has not. */
export async function jobOfForm(formToken: string, transaction: Transaction): Promise<number | null> {
  const row = await JobRow.findOne({ where: { formToken }, attributes: ["id"], transaction });
  return row?.id ?? null;
}

export async function addJob(job: NewJob, transaction: Transaction, createdAt?: Date): Promise<number> {
  const [row] = await JobRow.findOrCreate({
    where: { formToken: job.formToken },
    defaults: {
      ...job,
      stage: "probing",
      ...(createdAt ? { createdAt } : {}),
    },
    transaction,
  });
  return row.id;
}

const change = (
  id: number,
  takenIn: readonly JobStage[],
  values: Partial<JobRow>,
): Promise<JobRefusal | null> =>
  writeToJob(id, takenIn, (transaction) => JobRow.update(values, { where: { id }, transaction }));

/** Stores the strategy. */
export const setStrategy = (id: number, chosen: Strategy): Promise<JobRefusal | null> =>
  change(id, openStages, { school: chosen });

/** Marks cautions as acknowledged. */
export const readCautions = (id: number, now: readonly Caution[]): Promise<JobRefusal | null> =>
  writeToJob(id, jobStages, async (transaction) => {
    const row = await JobRow.findByPk(id, { transaction });
    if (!row) return;
    const read = new Set([...columns.cautionsRead.parse(row.cautionsRead), ...now]);
    await row.update({ cautionsRead: JSON.stringify([...read]) }, { transaction });
  });

/**
 * Moves a job that is being probed to another version of its circuit; a job on none of the named versions stays
 * unchanged.
 */
export const moveJob = (id: number, from: readonly string[], to: string): Promise<JobRefusal | null> =>
  writeToJob(id, ["probing"], (transaction) =>
    JobRow.update({ circuitId: to }, { where: { id, circuitId: [...from] }, transaction }),
  );

/** Stores what the customer said, and when the vehicle is promised; `undefined` leaves the promise as it is. */
export const setWords = (id: number, words: string, promised?: string | null): Promise<JobRefusal | null> =>
  change(id, openStages, { words, ...(promised === undefined ? {} : { promised }) });

/**
 * Opens a comeback of a closed job: a new job on the same vehicle, linked to the first, whose repair then counts as
 * failed.
 * @returns the new job, or why none can be opened; sent twice it is opened once
 */
export async function openComeback(
  first: Job,
  formToken: string,
  words: string,
  at: Date,
): Promise<{ readonly id: number } | { readonly refusal: JobRefusal }> {
  const store = await database();
  return store.write(async (transaction) => {
    const opened = await jobOfForm(formToken, transaction);
    if (opened !== null) return { id: opened };
    const refusal = await jobRefusal(first.id, ["closed"], transaction);
    if (refusal) return { refusal };
    await cameBack(first.id, true, at, transaction);
    const id = await addJob(
      {
        formToken,
        vehicleId: first.vehicle.id,
        circuitId: first.circuitId,
        words,
        school: first.school,
        comebackOf: first.id,
      },
      transaction,
    );
    return { id };
  });
}

/** The parts are decided on and ordered. */
export const awaitParts = (id: number, fitted: readonly string[], at: Date): Promise<JobRefusal | null> =>
  writeToJob(id, ["probing"], async (transaction) => {
    await enterParts(id, fitted, "planned", at, transaction);
    await JobRow.update(
      { stage: "part-awaited", fitted: JSON.stringify(fitted), fittedAt: null, partsInAt: null },
      { where: { id }, transaction },
    );
  });

/** Stores when the ordered parts arrived; null if they have not arrived after all. */
export const partsArrived = (id: number, partsInAt: Date | null): Promise<JobRefusal | null> =>
  change(id, ["part-awaited"], { partsInAt });

/** The parts and all else that is planned are done, on the present verdict; the final check is due. */
export const partsFitted = (
  id: number,
  fitted: readonly string[],
  verdict: VerdictThen,
  at: Date,
): Promise<JobRefusal | null> =>
  writeToJob(id, ["probing", "part-awaited"], async (transaction) => {
    const parts = await insertFitting(id, fitted, verdict, at, transaction);
    await JobRow.update(
      { stage: "proof-due", fitted: JSON.stringify(parts), fittedAt: at },
      { where: { id }, transaction },
    );
  });

/**
 * Returns to probing with all readings kept and the fitting unproven. A closed job loses its closure, and what the
 * shop learned from it is undone.
 */
export const reopen = (id: number, at: Date): Promise<JobRefusal | null> =>
  writeToJob(id, ["part-awaited", "proof-due", "closed"], async (transaction) => {
    await settleFitting(id, "withdrawn", at, transaction);
    const job = await JobRow.findByPk(id, { attributes: ["stage"], transaction });
    // The work of a closed job was done, whatever is found now.
    if (job?.stage !== "closed") await planAgain(id, transaction);
    if (await ClosureRow.destroy({ where: { jobId: id }, transaction })) await unproven(id, transaction);
    await JobRow.update(
      { stage: "probing", closedAt: null, partsInAt: null },
      { where: { id }, transaction },
    );
  });

/** The final check failed: returns to probing with its results, in one write. */
export const repairFailed = (
  id: number,
  readings: readonly NewReading[],
  at: Date,
): Promise<JobRefusal | null> =>
  writeToJob(id, ["proof-due"], async (transaction) => {
    await settleFitting(id, "failed", at, transaction);
    for (const reading of readings) await insertReading(reading, transaction);
    await JobRow.update({ stage: "probing" }, { where: { id }, transaction });
  });

/** Removes a job from the board and the records, or restores it; the shop's counts follow. */
export async function deleteJob(id: number, deletedAt: Date | null): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    const row = await JobRow.findByPk(id, { transaction });
    if (!row) return;
    await row.update({ deletedAt }, { transaction });
    if (row.comebackOf) {
      const backs = await JobRow.count({
        where: { comebackOf: row.comebackOf, deletedAt: null },
        transaction,
      });
      await cameBack(row.comebackOf, backs > 0, row.createdAt, transaction);
    }
    const closure = await ClosureRow.findByPk(id, { transaction });
    if (closure) await closure.update({ counted: deletedAt ? 0 : countedOf(closure.body) }, { transaction });
  });
}
