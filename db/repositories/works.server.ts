import type { Circuit } from "@core/circuit/circuit";
import { repairKind } from "@core/diagnose/verdict/stopping";
import type { JobRefusal } from "@core/records/jobStage";
import { usualWork } from "@core/workList/proposedWork";
import { partsRepaired, type WorkEntry, type WorkLine, type WorkState } from "@core/workList/workLine";
import type { Transaction } from "sequelize";
import { JobRow } from "../models/jobModels.server";
import { FittingRow } from "../models/memoryModels.server";
import { WorkRow } from "../models/workModels.server";
import { storedColumns } from "../storedColumns";
import { findCircuit } from "./circuits.server";
import { openStages, writeToJob } from "./jobGate.server";

/** A stored line, with when it was deleted. */
export interface StoredWork extends WorkLine {
  readonly struckAt: Date | null;
}

const columns = storedColumns.works;

const workOf = (row: WorkRow): StoredWork => ({
  id: row.id,
  round: row.round,
  ...(row.part ? { part: row.part } : {}),
  what: row.what,
  done: columns.done.parse(row.done),
  state: columns.state.parse(row.state),
  ...columns.body.parse(row.body),
  ...(row.doneBy ? { doneBy: row.doneBy } : {}),
  struckAt: row.struckAt ?? null,
});

/** A job's work list, deleted lines too, in the order it was made. */
export async function worksOf(jobId: number): Promise<StoredWork[]> {
  const rows = await WorkRow.findAll({
    where: { jobId },
    order: [
      ["round", "ASC"],
      ["madeAt", "ASC"],
      ["id", "ASC"],
    ],
  });
  return rows.map(workOf);
}

/** The lines of a list that are not deleted. */
export const activeWorks = (works: readonly StoredWork[]): StoredWork[] =>
  works.filter(({ struckAt }) => struckAt === null);

/** The round a job is in: one more than the checks that failed. */
export const roundOf = async (jobId: number, transaction?: Transaction): Promise<number> =>
  1 +
  (await FittingRow.count({ where: { jobId, outcome: "failed" }, ...(transaction ? { transaction } : {}) }));

const rowOf = (circuit: Circuit | null, { part, what, done, ...detail }: WorkEntry) => ({
  part: part ?? null,
  what,
  kind: circuit && part ? repairKind(circuit, part) : "unknown",
  done,
  body: JSON.stringify(detail),
});

/** A new line, and the state it is in. */
export interface NewWork extends WorkEntry {
  readonly id: string;
  readonly state: WorkState;
}

const circuitOf = async (jobId: number, transaction: Transaction): Promise<Circuit | null> => {
  const job = await JobRow.findByPk(jobId, { attributes: ["circuitId"], transaction });
  return job ? findCircuit(job.circuitId) : null;
};

/** A new line as it is stored; `doneBy` is null where it is not known who did it, absent for whoever enters it. */
type StoredNewWork = NewWork & { readonly doneBy?: null };

/** Stores a line of a job's round. */
export async function insertWork(
  jobId: number,
  { id, state, doneBy, ...entry }: StoredNewWork,
  round: number,
  madeAt: Date,
  transaction: Transaction,
): Promise<void> {
  const circuit = await circuitOf(jobId, transaction);
  // The database itself names whoever enters it where this is null.
  const by = doneBy === null ? { doneBy: "" } : {};
  await WorkRow.create({ id, jobId, round, state, ...by, ...rowOf(circuit, entry), madeAt }, { transaction });
}

/** Adds a line to a job's present round; the same one sent twice is stored once. */
export const addWork = (jobId: number, line: NewWork, at: Date): Promise<JobRefusal | null> =>
  writeToJob(
    jobId,
    openStages,
    async (transaction) => {
      await insertWork(jobId, line, await roundOf(jobId, transaction), at, transaction);
      await fittedToo(jobId, transaction);
    },
    (transaction) => WorkRow.findByPk(line.id, { attributes: ["jobId"], transaction }),
  );

/** Changes a line. */
export const changeWork = (jobId: number, { id, state, ...entry }: NewWork): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, async (transaction) => {
    const circuit = await circuitOf(jobId, transaction);
    await WorkRow.update({ state, ...rowOf(circuit, entry) }, { where: { id, jobId }, transaction });
    await fittedToo(jobId, transaction);
  });

/** Marks a line as done, or as still to be done. */
export const setWorkState = (jobId: number, id: string, state: WorkState): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, async (transaction) => {
    await WorkRow.update({ state }, { where: { id, jobId }, transaction });
    await fittedToo(jobId, transaction);
  });

/** Deletes a line, or restores it. */
export const strikeWork = (jobId: number, id: string, struckAt: Date | null): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, async (transaction) => {
    await WorkRow.update({ struckAt }, { where: { id, jobId }, transaction });
    await fittedToo(jobId, transaction);
  });

/** Parts of the circuit that stored lines mean to cure. */
const cured = (rows: readonly WorkRow[]): string[] =>
  partsRepaired(rows.map(({ part, done }) => ({ part: part ?? undefined, done: columns.done.parse(done) })));

/** Parts of the circuit repaired in a round. */
async function partsDone(jobId: number, round: number, transaction: Transaction): Promise<string[]> {
  const rows = await WorkRow.findAll({
    where: { jobId, round, state: "done", struckAt: null },
    order: [["madeAt", "ASC"]],
    transaction,
  });
  return cured(rows);
}

/** While a final check is due, it is of everything done in the round: a second part fitted in one visit counts. */
async function fittedToo(jobId: number, transaction: Transaction): Promise<void> {
  const job = await JobRow.findByPk(jobId, { attributes: ["id", "stage", "fitted"], transaction });
  if (job?.stage !== "proof-due") return;
  const parts = await partsDone(jobId, await roundOf(jobId, transaction), transaction);
  if (parts.length === 0) return;
  const fitted = JSON.stringify(parts);
  await job.update({ fitted }, { transaction });
  await FittingRow.update({ parts: fitted }, { where: { jobId, outcome: "pending" }, transaction });
}

/**
 * Enters parts as work of a job's present round, in a state. What else is planned there, or was done since the last
 * fitting, goes with them.
 * @returns the parts of all of them, the given ones first
 */
export async function enterParts(
  jobId: number,
  parts: readonly string[],
  state: WorkState,
  madeAt: Date,
  transaction: Transaction,
): Promise<string[]> {
  const circuit = await circuitOf(jobId, transaction);
  const round = await roundOf(jobId, transaction);
  const rows = await WorkRow.findAll({ where: { jobId, round, struckAt: null }, transaction });
  const last = await FittingRow.max<Date | null, FittingRow>("fittedAt", { where: { jobId }, transaction });
  const fresh = rows.filter((row) => row.state === "planned" || !last || row.madeAt > new Date(last));
  if (state === "done")
    await WorkRow.update({ state }, { where: { jobId, round, struckAt: null }, transaction });
  for (const part of parts) {
    if (rows.some((row) => row.part === part)) continue;
    const done = circuit ? usualWork(circuit, part) : "renewed";
    await WorkRow.create(
      {
        id: `part-${jobId}-${round}-${part}-${madeAt.getTime()}`,
        jobId,
        round,
        state,
        ...rowOf(circuit, { part, what: part, done }),
        madeAt,
      },
      { transaction },
    );
  }
  return [...new Set([...parts, ...cured(fresh)])];
}

/** Marks the work of the present round as still to be done, because the fitting was undone. */
export async function planAgain(jobId: number, transaction: Transaction): Promise<void> {
  const round = await roundOf(jobId, transaction);
  await WorkRow.update({ state: "planned" }, { where: { jobId, round, struckAt: null }, transaction });
}
