import { isDeepStrictEqual } from "node:util";
import { keyOfReading, type Reading } from "@core/predict/reading";
import type { JobRefusal } from "@core/records/jobStage";
import { Op, QueryTypes, type Transaction } from "sequelize";
import { database } from "../database.server";
import { ReadingRow } from "../models.server";
import { storedColumns } from "../storedColumns";
import { entryAnswer, openStages, writeToJob } from "./jobGate.server";

/** A reading as kept with its job. */
export interface StoredReading {
  readonly id: string;
  /** Its place in the job's evidence, from 1. */
  readonly number: number;
  readonly reading: Reading;
  /** The instrument it came from by itself; null where a hand entered it. */
  readonly source: string | null;
  readonly takenAt: Date;
  readonly struckAt: Date | null;
}

const storedOf = (row: ReadingRow): StoredReading => ({
  id: row.id,
  number: row.number,
  reading: storedColumns.readings.body.parse(row.body),
  source: row.source ?? null,
  takenAt: row.takenAt,
  struckAt: row.struckAt ?? null,
});

/** A job's readings in the order they were taken, struck ones included. */
export async function readingsOf(jobId: number): Promise<StoredReading[]> {
  return (await ReadingRow.findAll({ where: { jobId }, order: [["number", "ASC"]] })).map(storedOf);
}

export interface NewReading {
  /** Made where the reading was entered: the same one sent twice is stored once. */
  readonly id: string;
  readonly jobId: number;
  readonly reading: Reading;
  readonly source?: string;
  readonly takenAt: Date;
}

/** The next number of its job, and nothing where the id is there already: one statement, and so one trip to the disk. */
const insertion = `
  INSERT INTO readings (id, jobId, number, body, source, takenAt)
  SELECT :id, :jobId, COALESCE((SELECT MAX(number) FROM readings WHERE jobId = :jobId), 0) + 1, :body, :source, :takenAt
  WHERE NOT EXISTS (SELECT 1 FROM readings WHERE id = :id)`;

/** Adds a reading, inside a write of the caller's where one is given; one already there by id is left alone. */
export async function insertReading(
  { id, jobId, reading, source, takenAt }: NewReading,
  transaction: Transaction | null,
): Promise<void> {
  const { sequelize } = ReadingRow;
  if (!sequelize) throw new Error("no database is open");
  await sequelize.query(insertion, {
    type: QueryTypes.INSERT,
    replacements: { id, jobId, body: JSON.stringify(reading), source: source ?? null, takenAt },
    transaction,
  });
}

/** Stores a reading of a job that is not closed; resolves once it is on disk. */
export async function addReading(entry: NewReading): Promise<JobRefusal | null> {
  const store = await database();
  const stored = () => ReadingRow.findByPk(entry.id, { attributes: ["jobId"] });
  // Nothing else is written meanwhile: one statement needs no transaction, which takes twice the time.
  return store.alone(async () => {
    const answer = await entryAnswer(entry.jobId, openStages, stored, null);
    if (answer === "stored") return null;
    if (!answer) await insertReading(entry, null);
    return answer;
  });
}

/** Strikes a reading out, or puts it back; it keeps its place either way. */
export const deleteReading = (jobId: number, id: string, struckAt: Date | null): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, (transaction) =>
    ReadingRow.update({ struckAt }, { where: { id, jobId }, transaction }),
  );

/**
 * Sets what was heard of one test: an earlier word on the same test is deleted, and a word that stands
 * already is left as it is.
 * @param asked the entry with any reading of that test
 * @param told what was heard now, or null where it is taken back
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
