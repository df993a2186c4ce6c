import type { Taught } from "@core/records/secondLook";
import { QueryTypes, type Transaction } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";
import { JobRow } from "../models/jobModels.server";
import { ClosureRow, SecondLookRow } from "../models/memoryModels.server";
import { storedColumns } from "../storedColumns";

/** What the second look at one job's closing changed. */
export interface StoredSecondLook {
  readonly jobId: number;
  readonly before: Taught;
  readonly after: Taught;
  readonly undone: boolean;
}

const columns = storedColumns.secondLooks;

/** Counted closings with readings that did not ask for the fault of each line of work and have not been reviewed. */
const waiting = `FROM closures k JOIN jobs j ON j.id = k.jobId
  WHERE k.counted = 1 AND j.deletedAt IS NULL AND json_extract(k.body, '$.findings') IS NULL
    AND NOT EXISTS (SELECT 1 FROM secondLooks s WHERE s.jobId = k.jobId)
    AND EXISTS (SELECT 1 FROM readings r WHERE r.jobId = k.jobId AND r.struckAt IS NULL)`;

async function asked<T>(sql: string, shape: z.ZodType<T>): Promise<T[]> {
  const { sequelize } = JobRow;
  if (!sequelize) throw new Error("no database is open");
  return z.array(shape).parse(await sequelize.query(sql, { type: QueryTypes.SELECT }));
}

/** Number of closings that wait for a second look. */
export const closingsWaiting = async (): Promise<number> =>
  (await asked(`SELECT COUNT(*) AS n ${waiting}`, z.object({ n: z.number() })))[0]?.n ?? 0;

/** Jobs of the closings that wait for a second look, oldest first. */
export const jobsWaiting = async (most: number): Promise<number[]> =>
  (
    await asked(
      `SELECT k.jobId AS id ${waiting} ORDER BY k.closedAt, k.jobId LIMIT ${most}`,
      z.object({ id: z.number() }),
    )
  ).map(({ id }) => id);

async function count(jobId: number, taught: Taught, transaction: Transaction): Promise<void> {
  const row = await ClosureRow.findByPk(jobId, { transaction });
  if (!row) return;
  const { kind, mode, counted } = taught;
  const body = { ...storedColumns.closures.body.parse(row.body), learn: counted };
  await row.update({ kind, mode, counted: counted ? 1 : 0, body: JSON.stringify(body) }, { transaction });
}

/** Stores a second look and what it changes; one that was stored meanwhile stays as it is. */
export async function storeSecondLook(jobId: number, before: Taught, after: Taught, at: Date): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    if (await SecondLookRow.findByPk(jobId, { transaction })) return;
    const texts = { before: JSON.stringify(before), after: JSON.stringify(after) };
    await SecondLookRow.create({ jobId, ...texts, lookedAt: at }, { transaction });
    if (texts.before !== texts.after) await count(jobId, after, transaction);
  });
}

/** Second looks that changed something, newest first. */
export async function secondLooks(): Promise<StoredSecondLook[]> {
  const rows = await SecondLookRow.findAll({ order: [["lookedAt", "DESC"]] });
  return rows.flatMap(({ jobId, before, after, undoneAt }) =>
    before === after
      ? []
      : [
          {
            jobId,
            before: columns.before.parse(before),
            after: columns.after.parse(after),
            undone: Boolean(undoneAt),
          },
        ],
  );
}

/** Undoes what a second look changed, or does it again. */
export async function undoSecondLook(jobId: number, undoneAt: Date | null): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    const row = await SecondLookRow.findByPk(jobId, { transaction });
    if (!row) return;
    await row.update({ undoneAt }, { transaction });
    await count(
      jobId,
      undoneAt ? columns.before.parse(row.before) : columns.after.parse(row.after),
      transaction,
    );
  });
}
