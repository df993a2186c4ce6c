import { type Caution, cautions } from "@core/diagnose/caution";
import { type School, schools } from "@core/diagnose/school";
import type { Transaction } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";
import { type JobStage, jobStages } from "../jobWords";
import { JobRow, type VehicleRow } from "../models.server";
import type { Vehicle } from "./vehicles.server";

export interface Job {
  readonly id: number;
  readonly vehicle: Vehicle;
  readonly circuitId: string;
  readonly words: string;
  readonly stage: JobStage;
  /** Where its technician begins to look. */
  readonly school: School;
  /** Cautions its technician has read; they are not shown again. */
  readonly cautionsRead: readonly Caution[];
  /** Parts fitted, once they are. */
  readonly fitted: readonly string[] | null;
  readonly found: string | null;
  readonly fittedAt: Date | null;
  readonly closedAt: Date | null;
  readonly createdAt: Date;
}

const stage = z.enum(jobStages);
const school = z.enum(schools);
const parts = z.array(z.string());
const cautionList = z.array(z.enum(cautions));

type JobWithVehicle = JobRow & { vehicle?: VehicleRow | null };

function jobOf(row: JobWithVehicle, vehicle: VehicleRow): Job {
  return {
    id: row.id,
    vehicle: { id: vehicle.id, label: vehicle.label, model: vehicle.model, circuitId: vehicle.circuitId },
    circuitId: row.circuitId,
    words: row.words,
    stage: stage.parse(row.stage),
    school: school.parse(row.school),
    cautionsRead: cautionList.parse(JSON.parse(row.cautionsRead)),
    fitted: row.fitted === null || row.fitted === undefined ? null : parts.parse(JSON.parse(row.fitted)),
    found: row.found ?? null,
    fittedAt: row.fittedAt ?? null,
    closedAt: row.closedAt ?? null,
    createdAt: row.createdAt,
  };
}

export async function findJob(id: number): Promise<Job | null> {
  const row: JobWithVehicle | null = await JobRow.findByPk(id, { include: "vehicle" });
  return row?.vehicle ? jobOf(row, row.vehicle) : null;
}

/** All jobs, the newest first. */
export async function listJobs(): Promise<Job[]> {
  const rows: JobWithVehicle[] = await JobRow.findAll({
    include: "vehicle",
    order: [
      ["createdAt", "DESC"],
      ["id", "DESC"],
    ],
    limit: 500,
  });
  return rows.flatMap((row) => (row.vehicle ? [jobOf(row, row.vehicle)] : []));
}

export interface NewJob {
  /** Token of the form it came from: the same form sent twice opens one job. */
  readonly formToken: string;
  readonly vehicleId: number;
  readonly circuitId: string;
  readonly words: string;
  readonly school?: School;
}

/** The job a form opened already; null where it has opened none. */
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

async function change(id: number, values: Partial<JobRow>): Promise<void> {
  const store = await database();
  await store.write((transaction) => JobRow.update(values, { where: { id }, transaction }));
}

/** Chooses where to begin. */
export const setSchool = (id: number, chosen: School): Promise<void> => change(id, { school: chosen });

/** Takes cautions as read. */
export async function readCautions(id: number, now: readonly Caution[]): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    const row = await JobRow.findByPk(id, { transaction });
    if (!row) return;
    const read = new Set([...cautionList.parse(JSON.parse(row.cautionsRead)), ...now]);
    await row.update({ cautionsRead: JSON.stringify([...read]) }, { transaction });
  });
}

/** Moves a job from one version of its circuit to another; one that is on none of those named stays where it is. */
export async function moveJob(id: number, from: readonly string[], to: string): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    JobRow.update({ circuitId: to }, { where: { id, circuitId: [...from] }, transaction }),
  );
}

/** Notes what the customer said. */
export const setWords = (id: number, words: string): Promise<void> => change(id, { words });

/** The parts are decided on and awaited. */
export const awaitParts = (id: number, fitted: readonly string[]): Promise<void> =>
  change(id, { stage: "part-awaited", fitted: JSON.stringify(fitted), fittedAt: null });

/** The parts are in; the proof run is due. */
export const partsFitted = (id: number, fitted: readonly string[], at: Date): Promise<void> =>
  change(id, { stage: "proof-due", fitted: JSON.stringify(fitted), fittedAt: at });

/** Back to probing with everything seen kept. */
export const reopen = (id: number): Promise<void> => change(id, { stage: "probing", closedAt: null });

export const closeJob = (id: number, found: string, at: Date): Promise<void> =>
  change(id, { stage: "closed", found, closedAt: at });
