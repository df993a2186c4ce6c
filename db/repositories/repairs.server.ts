import type { Preference } from "@core/access/route";
import type { SortCount } from "@core/access/sortCount";
import type { TrayNote } from "@core/access/tray";
import type { JobRefusal } from "@core/records/jobStage";
import { Op, type Transaction } from "sequelize";
import { FittingRow } from "../models/memoryModels.server";
import { RepairRow, RepairTickRow, TrayNoteRow } from "../models/repairModels.server";
import { storedColumns } from "../storedColumns";
import { openStages, writeToJob } from "./jobGate.server";

/** The parts a job replaces, and the chosen route. */
export interface Repair {
  readonly targets: readonly string[];
  readonly prefer: Preference;
}

/** The chosen parts, and the round of the job they were chosen in. */
export interface ChosenRepair extends Repair {
  readonly round: number;
}

/** The parts a job replaces; null until chosen. */
export async function repairOf(jobId: number): Promise<ChosenRepair | null> {
  const row = await RepairRow.findByPk(jobId);
  if (!row) return null;
  return {
    targets: storedColumns.fits.targets.parse(row.targets),
    prefer: storedColumns.fits.prefer.parse(row.prefer),
    round: row.round,
  };
}

/** Chooses the parts a job replaces; resolves once it is on disk. */
export const setRepair = (jobId: number, { targets, prefer }: Repair): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, async (transaction) => {
    const round = 1 + (await roundsEnded(jobId, transaction)).length;
    await RepairRow.upsert({ jobId, targets: JSON.stringify(targets), prefer, round }, { transaction });
  });

/** A step ticked during removal or refitting, with its screws counted. */
export interface RepairTick {
  readonly id: string;
  readonly step: string;
  readonly way: "in" | "back";
  readonly screws: number;
  readonly minutes: number | null;
  readonly takenAt: Date;
  /** The round of the job it was ticked in. */
  readonly round: number;
  /** Why it was ticked before a step it waits for; null if it waited for none. */
  readonly reason: string | null;
  /** The screws by sort; null where only their total was counted. */
  readonly counts: readonly SortCount[] | null;
}

/** When each round of a job ended: its final checks that failed, oldest first. */
async function roundsEnded(jobId: number, transaction?: Transaction): Promise<Date[]> {
  const rows = await FittingRow.findAll({
    where: { jobId, outcome: "failed" },
    attributes: ["outcomeAt"],
    order: [["id", "ASC"]],
    ...(transaction ? { transaction } : {}),
  });
  return rows.flatMap(({ outcomeAt }) => outcomeAt ?? []);
}

/** A job's active ticks, oldest first. */
export async function ticksOf(jobId: number): Promise<RepairTick[]> {
  const ended = await roundsEnded(jobId);
  const rows = await RepairTickRow.findAll({
    where: { jobId, struckAt: { [Op.is]: null } },
    order: [["takenAt", "ASC"]],
  });
  return rows.map(({ id, step, way, screws, minutes, takenAt, reason, counts }) => ({
    id,
    step,
    way: storedColumns.fitTicks.way.parse(way),
    screws,
    minutes,
    takenAt,
    round: 1 + ended.filter((end) => end < takenAt).length,
    reason: reason ?? null,
    counts: storedColumns.fitTicks.counts.parse(counts ?? null),
  }));
}

/**
 * Stores a tick; the same one sent twice is stored once. If a step is ticked again in the same round and direction, its
 * last tick counts.
 */
export const addTick = (
  jobId: number,
  shelfId: string,
  tick: Omit<RepairTick, "round">,
): Promise<JobRefusal | null> =>
  writeToJob(
    jobId,
    openStages,
    async (transaction) => {
      const began = (await roundsEnded(jobId, transaction)).at(-1) ?? new Date(0);
      await RepairTickRow.update(
        { struckAt: tick.takenAt },
        {
          where: {
            jobId,
            step: tick.step,
            way: tick.way,
            struckAt: { [Op.is]: null },
            takenAt: { [Op.gt]: began },
          },
          transaction,
        },
      );
      await RepairTickRow.create(
        { ...tick, counts: tick.counts && JSON.stringify(tick.counts), jobId, shelfId },
        { transaction },
      );
    },
    (transaction) => RepairTickRow.findByPk(tick.id, { attributes: ["jobId"], transaction }),
  );

/** Removes a tick. */
export const deleteTick = (jobId: number, id: string, struckAt: Date): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, (transaction) =>
    RepairTickRow.update({ struckAt }, { where: { id, jobId }, transaction }),
  );

/** Measured minutes of a plan's removal steps, on any job. */
export async function measuredSteps(shelfId: string): Promise<{ step: string; minutes: number }[]> {
  const rows = await RepairTickRow.findAll({
    where: { shelfId, way: "in", struckAt: { [Op.is]: null }, minutes: { [Op.not]: null } },
    attributes: ["step", "minutes"],
    order: [["takenAt", "ASC"]],
  });
  return rows.flatMap(({ step, minutes }) => (minutes === null ? [] : [{ step, minutes }]));
}

/** What became of some screws, in words. */
export interface StoredTrayNote extends TrayNote {
  readonly id: string;
  readonly words: string;
  readonly takenAt: Date;
}

/** What became of a job's screws that no tick explains, oldest first; deleted notes are left out. */
export async function trayNotesOf(jobId: number): Promise<StoredTrayNote[]> {
  const rows = await TrayNoteRow.findAll({
    where: { jobId, struckAt: { [Op.is]: null } },
    order: [["takenAt", "ASC"]],
  });
  return rows.map(({ id, kind, sort, count, words, takenAt }) => ({
    id,
    kind: storedColumns.trayNotes.kind.parse(kind),
    sort,
    count,
    words,
    takenAt,
  }));
}

/** Stores what became of some screws; the same one sent twice is stored once. */
export const addTrayNote = (jobId: number, note: StoredTrayNote): Promise<JobRefusal | null> =>
  writeToJob(
    jobId,
    openStages,
    (transaction) => TrayNoteRow.create({ ...note, jobId }, { transaction }),
    (transaction) => TrayNoteRow.findByPk(note.id, { attributes: ["jobId"], transaction }),
  );

/** Deletes a note about screws. */
export const deleteTrayNote = (jobId: number, id: string, struckAt: Date): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, (transaction) =>
    TrayNoteRow.update({ struckAt }, { where: { id, jobId }, transaction }),
  );
