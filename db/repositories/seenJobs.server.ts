import { isDeepStrictEqual } from "node:util";
import type { Caution } from "@core/diagnose/tests/caution";
import type { Place } from "@core/wiring/place";
import type { PlaceReading } from "@core/wiring/placeReading";
import { keyOfPlaceReading } from "@core/wiring/placeTest";
import type { SeenCar } from "@core/wiring/seenCar";
import { Op, type Transaction } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";
import { SeenJobRow, SeenReadingRow } from "../models/seenModels.server";
import { storedColumns } from "../storedColumns";

/** A job on a vehicle whose diagram nobody has. */
export interface SeenJob {
  readonly id: number;
  readonly label: string;
  /** The complaint in the customer's words. */
  readonly words: string;
  readonly seen: SeenCar;
  /** Places that nobody can get at on this vehicle. */
  readonly outOfReach: readonly Place[];
  /** Cautions its technician has acknowledged. */
  readonly cautionsRead: readonly Caution[];
  /** The job that it went on as; null before. */
  readonly jobId: number | null;
  readonly deletedAt: Date | null;
  /** Grows with every change, so that a page can tell whether it is up to date. */
  readonly version: number;
  readonly createdAt: Date;
}

/** A reading by place as stored with its job. */
export interface StoredSeenReading {
  readonly id: string;
  /** Its number in the evidence, from 1. */
  readonly number: number;
  readonly reading: PlaceReading;
  readonly takenAt: Date;
  /** Who took it; null if that is not known. */
  readonly takenBy: string | null;
  readonly struckAt: Date | null;
}

const columns = storedColumns.seenJobs;

const jobOf = (row: SeenJobRow): SeenJob => ({
  id: row.id,
  label: row.label,
  words: row.words,
  seen: columns.seen.parse(row.seen),
  outOfReach: columns.outOfReach.parse(row.outOfReach),
  cautionsRead: columns.cautionsRead.parse(row.cautionsRead),
  jobId: row.jobId ?? null,
  deletedAt: row.deletedAt ?? null,
  version: row.changes,
  createdAt: z.date().parse(row.createdAt),
});

const readingOf = (row: SeenReadingRow): StoredSeenReading => ({
  id: row.id,
  number: row.number,
  reading: storedColumns.seenReadings.body.parse(row.body),
  takenAt: row.takenAt,
  takenBy: row.takenBy ?? null,
  struckAt: row.struckAt ?? null,
});

/** A job without a diagram; null if there is none. */
export async function findSeenJob(id: number): Promise<SeenJob | null> {
  const row = await SeenJobRow.findByPk(id);
  return row && jobOf(row);
}

/** Jobs without a diagram that are neither deleted nor went on with a circuit, the newest first. */
export async function openSeenJobs(): Promise<SeenJob[]> {
  const rows = await SeenJobRow.findAll({
    where: { deletedAt: { [Op.is]: null }, jobId: { [Op.is]: null } },
    order: [["id", "DESC"]],
    limit: 200,
  });
  return rows.map(jobOf);
}

/** A job's readings in the order they were taken, including deleted ones. */
export async function seenReadingsOf(seenJobId: number): Promise<StoredSeenReading[]> {
  return (await SeenReadingRow.findAll({ where: { seenJobId }, order: [["number", "ASC"]] })).map(readingOf);
}

export interface NewSeenJob {
  /** Token of the form it came from; the same form sent twice opens one job. */
  readonly formToken: string;
  readonly label: string;
  readonly words: string;
  readonly seen: SeenCar;
  /** The complaint, each part with an id of its own. */
  readonly complaint: readonly { readonly id: string; readonly reading: PlaceReading }[];
}

/** Opens a job with its complaint; resolves with its number once it is on disk. */
export async function addSeenJob(job: NewSeenJob, at: Date): Promise<number> {
  const { formToken, label, words, seen, complaint } = job;
  const store = await database();
  return store.write(async (transaction) => {
    const opened = await SeenJobRow.findOne({ where: { formToken }, transaction });
    if (opened) return opened.id;
    const { id } = await SeenJobRow.create(
      { formToken, label, words, seen: JSON.stringify(seen), createdAt: at },
      { transaction },
    );
    await SeenReadingRow.bulkCreate(
      complaint.map((own, index) => ({
        id: own.id,
        seenJobId: id,
        number: index + 1,
        body: JSON.stringify(own.reading),
        takenAt: at,
      })),
      { transaction },
    );
    return id;
  });
}

/** Why an entry was not stored. */
export type SeenRefusal = "gone" | "went-on";

/** Runs a write on a job that is still open; resolves once it is on disk. */
async function writeOpen(
  id: number,
  work: (row: SeenJobRow, transaction: Transaction) => Promise<unknown>,
): Promise<SeenRefusal | null> {
  const store = await database();
  return store.write(async (transaction) => {
    const row = await SeenJobRow.findByPk(id, { transaction });
    if (!row || row.deletedAt) return "gone";
    if (row.jobId) return "went-on";
    await work(row, transaction);
    return null;
  });
}

async function insert(
  { id, reading, takenAt }: NewSeenReading,
  seenJobId: number,
  transaction: Transaction,
): Promise<void> {
  if (await SeenReadingRow.findByPk(id, { transaction })) return;
  const last = await SeenReadingRow.max<number | null, SeenReadingRow>("number", {
    where: { seenJobId },
    transaction,
  });
  const body = JSON.stringify(reading);
  await SeenReadingRow.create({ id, seenJobId, number: (last ?? 0) + 1, body, takenAt }, { transaction });
}

export interface NewSeenReading {
  /** Made where the reading was entered; the same reading sent twice is stored once. */
  readonly id: string;
  readonly reading: PlaceReading;
  readonly takenAt: Date;
}

/** Stores a reading. */
export const addSeenReading = (seenJobId: number, entry: NewSeenReading): Promise<SeenRefusal | null> =>
  writeOpen(seenJobId, (_row, transaction) => insert(entry, seenJobId, transaction));

/**
 * Stores what was told of one speed: an earlier answer of that speed is deleted.
 * @param told the new answer; null if it is withdrawn
 */
export const setSeenComplaint = (
  seenJobId: number,
  asked: NewSeenReading,
  told: PlaceReading | null,
): Promise<SeenRefusal | null> =>
  writeOpen(seenJobId, async (_row, transaction) => {
    const key = keyOfPlaceReading(asked.reading);
    const rows = await SeenReadingRow.findAll({
      where: { seenJobId, struckAt: { [Op.is]: null } },
      transaction,
    });
    for (const row of rows) {
      const { reading } = readingOf(row);
      if (!reading.heard || keyOfPlaceReading(reading) !== key) continue;
      if (told && isDeepStrictEqual(reading, told)) return;
      await row.update({ struckAt: asked.takenAt }, { transaction });
    }
    if (told) await insert({ ...asked, reading: told }, seenJobId, transaction);
  });

/** Deletes a reading, or restores it; it keeps its number either way. */
export const deleteSeenReading = (
  seenJobId: number,
  id: string,
  struckAt: Date | null,
): Promise<SeenRefusal | null> =>
  writeOpen(seenJobId, (_row, transaction) =>
    SeenReadingRow.update({ struckAt }, { where: { id, seenJobId }, transaction }),
  );

/** Says that nobody can get at a place on this vehicle, or that somebody can after all. */
export const setOutOfReach = (seenJobId: number, place: Place, isOut: boolean): Promise<SeenRefusal | null> =>
  writeOpen(seenJobId, (row, transaction) => {
    const others = columns.outOfReach.parse(row.outOfReach).filter((own) => own !== place);
    return row.update({ outOfReach: JSON.stringify(isOut ? [...others, place] : others) }, { transaction });
  });

/** Marks cautions as read. */
export const readSeenCautions = (seenJobId: number, read: readonly Caution[]): Promise<SeenRefusal | null> =>
  writeOpen(seenJobId, (row, transaction) => {
    const known = columns.cautionsRead.parse(row.cautionsRead);
    return row.update({ cautionsRead: JSON.stringify([...new Set([...known, ...read])]) }, { transaction });
  });

/** Corrects what is seen of the vehicle. */
export const setSeen = (seenJobId: number, seen: SeenCar): Promise<SeenRefusal | null> =>
  writeOpen(seenJobId, (row, transaction) => row.update({ seen: JSON.stringify(seen) }, { transaction }));

/**
 * Ties a job without a diagram to the job that it goes on as, inside the caller's write.
 * @param open opens that job; not called if it went on before
 * @returns that job; null if there is no such job without a diagram
 */
export async function goOnAs(
  seenJobId: number,
  open: () => Promise<number>,
  transaction: Transaction,
): Promise<number | null> {
  const row = await SeenJobRow.findByPk(seenJobId, { transaction });
  if (!row) return null;
  const jobId = row.jobId ?? (await open());
  if (!row.jobId) await row.update({ jobId }, { transaction });
  return jobId;
}

/** Deletes a job without a diagram, or restores it. */
export async function deleteSeenJob(id: number, deletedAt: Date | null): Promise<void> {
  const store = await database();
  await store.write((transaction) => SeenJobRow.update({ deletedAt }, { where: { id }, transaction }));
}
