import type { Preference } from "@core/access/route";
import type { JobRefusal } from "@core/records/jobStage";
import { Op } from "sequelize";
import { RepairRow, RepairTickRow } from "../models/repairModels.server";
import { storedColumns } from "../storedColumns";
import { openStages, writeToJob } from "./jobGate.server";

/** The parts a job replaces, and the chosen route. */
export interface Repair {
  readonly targets: readonly string[];
  readonly prefer: Preference;
}

/** The parts a job replaces; null until chosen. */
export async function repairOf(jobId: number): Promise<Repair | null> {
  const row = await RepairRow.findByPk(jobId);
  if (!row) return null;
  return {
    targets: storedColumns.fits.targets.parse(row.targets),
    prefer: storedColumns.fits.prefer.parse(row.prefer),
  };
}

/** Chooses the parts a job replaces; resolves once it is on disk. */
export const setRepair = (jobId: number, { targets, prefer }: Repair): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, (transaction) =>
    RepairRow.upsert({ jobId, targets: JSON.stringify(targets), prefer }, { transaction }),
  );

/** A step ticked during removal or refitting, with its screws counted. */
export interface RepairTick {
  readonly id: string;
  readonly step: string;
  readonly way: "in" | "back";
  readonly screws: number;
  readonly minutes: number | null;
  readonly takenAt: Date;
}

/** A job's active ticks, oldest first. */
export async function ticksOf(jobId: number): Promise<RepairTick[]> {
  const rows = await RepairTickRow.findAll({
    where: { jobId, struckAt: { [Op.is]: null } },
    order: [["takenAt", "ASC"]],
  });
  return rows.map(({ id, step, way, screws, minutes, takenAt }) => ({
    id,
    step,
    way: storedColumns.fitTicks.way.parse(way),
    screws,
    minutes,
    takenAt,
  }));
}

/**
 * Stores a tick; the same one sent twice is stored once. If a step is ticked again in the same direction, its last
 * tick counts.
 */
export const addTick = (jobId: number, shelfId: string, tick: RepairTick): Promise<JobRefusal | null> =>
  writeToJob(
    jobId,
    openStages,
    async (transaction) => {
      await RepairTickRow.update(
        { struckAt: tick.takenAt },
        { where: { jobId, step: tick.step, way: tick.way, struckAt: { [Op.is]: null } }, transaction },
      );
      await RepairTickRow.create({ ...tick, jobId, shelfId }, { transaction });
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
