import { isDeepStrictEqual } from "node:util";
import { keyOfReading, type Reading } from "@core/predict/reading";
import type { JobRefusal } from "@core/records/jobStage";
import { Op, QueryTypes, type Transaction } from "sequelize";
import { database } from "../database.server";
import { ReadingRow } from "../models/entryModels.server";
import { storedColumns } from "../storedColumns";
import { entryAnswer, openStages, writeToJob } from "./jobGate.server";

/** A reading as stored with its job. */
export interface StoredReading {
  readonly id: string;
  /** Its number in the job's evidence, from 1. */
  readonly number: number;
  readonly reading: Reading;
  /** The instrument it was read from; null if it was entered by hand. */
  readonly source: string | null;
  readonly takenAt: Date;
  /** Who took it; null if that is not known. */
  readonly takenBy: string | null;
  readonly struckAt: Date | null;
}

const storedOf = (row: ReadingRow): StoredReading => ({
  id: row.id,
  number: row.number,
  reading: storedColumns.readings.body.parse(row.body),
  source: row.source ?? null,
  takenAt: row.takenAt,
  takenBy: row.takenBy || null,
  struckAt: row.struckAt ?? null,
});

/** A job's readings in the order they were taken, including deleted ones. */
export async function readingsOf(jobId: number): Promise<StoredReading[]> {
  return (await ReadingRow.findAll({ where: { jobId }, order: [["number", "ASC"]] })).map(storedOf);
}

export interface NewReading {
  /** Made where the reading was entered; the same reading sent twice is stored once. */
  readonly id: string;
  readonly jobId: number;
  readonly reading: Reading;
  readonly source?: string;
  readonly takenAt: Date;
  /** Who took it; absent for whoever enters it, null if that is not known. */
  readonly takenBy?: string | null;
}

/** Inserts with the next number of its job, unless the id exists: one statement, so one flush to disk. */
const insertion = `
  INSERT INTO readings (id, jobId, number, body, source, takenAt, takenBy)
  SELECT :id, :jobId, COALESCE((SELECT MAX(number) FROM readings WHERE jobId = :jobId), 0) + 1, :body, :source, :takenAt, :takenBy
  WHERE NOT EXISTS (SELECT 1 FROM readings WHERE id = :id)`;

/** Adds a reading, inside the caller's write if one is given; one that exists by id stays unchanged. */
export async function insertReading(
  { id, jobId, reading, source, takenAt, takenBy }: NewReading,
  transaction: Transaction | null,
): Promise<void> {
  const { sequelize } = ReadingRow;
  if (!sequelize) throw new Error("no database is open");
  await sequelize.query(insertion, {
    type: QueryTypes.INSERT,
    // The database itself names whoever enters it where this is null.
    replacements: {
      id,
      jobId,
      body: JSON.stringify(reading),
      source: source ?? null,
      takenAt,
      takenBy: takenBy === null ? "" : (takenBy ?? null),
    },
    transaction,
  });
}

/** Stores a reading of a job that is not closed; resolves once it is on disk. */
export async function addReading(entry: NewReading): Promise<JobRefusal | null> {
  const store = await database();
  const stored = () => ReadingRow.findByPk(entry.id, { attributes: ["jobId"] });
  // Nothing else is written meanwhile, and one statement needs no transaction, which would take twice the time.
  return store.alone(async () => {
    const answer = await entryAnswer(entry.jobId, openStages, stored, null);
    if (answer === "stored") return null;
    if (!answer) await insertReading(entry, null);
    return answer;
  });
}

/** Deletes a reading, or restores it; it keeps its number either way. */
export const deleteReading = (jobId: number, id: string, struckAt: Date | null): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, (transaction) =>
    ReadingRow.update({ struckAt }, { where: { id, jobId }, transaction }),
  );

/**
 * Stores what was heard for one test: an earlier answer to the same test is deleted, and an identical one stays
 * unchanged.
 * @param asked the entry with any reading of that test
 * @param told the new answer, or null if it is withdrawn
 */
export function setHeard(asked: NewReading, told: Reading | null): Promise<JobRefusal | null> {
  const test = keyOfReading(asked.reading);
  return writeToJob(asked.jobId, openStages, async (transaction) => {
    const rows = await ReadingRow.findAll({
      where: { jobId: asked.jobId, struckAt: { [Op.is]: null } },
      transaction,
    });
    for (const row of rows) {
      const { reading } = storedOf(row);
      if (!reading.heard || keyOfReading(reading) !== test) continue;
      if (told && isDeepStrictEqual(reading, told)) return;
      await row.update({ struckAt: asked.takenAt }, { transaction });
    }
    if (told) await insertReading({ ...asked, reading: told }, transaction);
  });
}
