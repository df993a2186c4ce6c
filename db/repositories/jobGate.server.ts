import type { JobRefusal, JobStage } from "@core/records/jobStage";
import type { Transaction } from "sequelize";
import { database } from "../database.server";
import { JobRow } from "../models/jobModels.server";
import { EventRow } from "../models/memoryModels.server";
import { storedColumns } from "../storedColumns";

/** Stages of a job that is not closed. */
export const openStages = ["probing", "part-awaited", "proof-due"] as const satisfies readonly JobStage[];

/** Photos and recordings are taken even by a deleted job, since they would be lost otherwise. */
export const always = [...openStages, "closed", "deleted"] as const;

/** The stages in which a job takes something; a deleted job takes only what says so here. */
export type TakenIn = readonly (JobStage | "deleted")[];

/** When a job came to its stage, by its audit trail; null if the trail does not say. */
async function stageSince(jobId: number, transaction: Transaction | null): Promise<string | null> {
  const row = await EventRow.findOne({
    where: { jobId, what: "stage" },
    order: [["id", "DESC"]],
    transaction,
  });
  return row ? new Date(row.at).toISOString() : null;
}

/**
 * Why a job takes nothing now that needs one of some stages; null if it does. Call it in the write itself, so that
 * nothing comes between.
 * @throws if there is no such job
 */
export async function jobRefusal(
  jobId: number,
  takenIn: TakenIn,
  transaction: Transaction | null,
): Promise<JobRefusal | null> {
  const row = await JobRow.findByPk(jobId, { attributes: ["stage", "deletedAt"], transaction });
  if (!row) throw new Error(`there is no job ${jobId}`);
  if (row.deletedAt)
    return takenIn.includes("deleted") ? null : { code: "job-deleted", at: row.deletedAt.toISOString() };
  const stage = storedColumns.jobs.stage.parse(row.stage);
  if (takenIn.includes(stage)) return null;
  return { code: "other-stage", stage, at: await stageSince(jobId, transaction) };
}

/** Finds the same entry in the database, because an entry sent twice is stored once. */
export type FindStored = (transaction: Transaction | null) => Promise<{ readonly jobId: number } | null>;

/**
 * Why an entry must not be written, or that it is stored already; null if it must be written.
 * @param stored finds the entry by its id
 */
export async function entryAnswer(
  jobId: number,
  takenIn: TakenIn,
  stored: FindStored | null,
  transaction: Transaction | null,
): Promise<JobRefusal | "stored" | null> {
  const row = await stored?.(transaction);
  if (row) return row.jobId === jobId ? "stored" : { code: "id-taken" };
  return jobRefusal(jobId, takenIn, transaction);
}

/**
 * Writes to a job that is at one of some stages and not deleted, in one transaction; resolves once it is on disk.
 * @param stored finds an entry already stored under its id, which then stays unchanged
 * @returns why it was refused; null once it is on disk
 */
export async function writeToJob(
  jobId: number,
  takenIn: TakenIn,
  work: (transaction: Transaction) => Promise<unknown>,
  stored: FindStored | null = null,
): Promise<JobRefusal | null> {
  const store = await database();
  return store.write(async (transaction) => {
    const answer = await entryAnswer(jobId, takenIn, stored, transaction);
    if (answer === "stored") return null;
    if (!answer) await work(transaction);
    return answer;
  });
}
