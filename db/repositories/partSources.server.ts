import type { JobRefusal } from "@core/records/jobStage";
import { Op, type Transaction } from "sequelize";
import { PartSourceRow } from "../models/sourceModels.server";
import { WorkRow } from "../models/workModels.server";
import { storedColumns } from "../storedColumns";
import { openStages, writeToJob } from "./jobGate.server";

/** Where a part can be had: from whom, at what price, and when it would be here. */
export interface PartSource {
  readonly id: string;
  /** The part of the circuit it is for. */
  readonly part: string;
  readonly source: string;
  readonly number: string | null;
  /** What it costs the shop. */
  readonly priceMinor: number;
  /** A day, `2026-12-03`; null if nobody said. */
  readonly arrivesOn: string | null;
}

/** A source as stored, with whether the job takes the part from it. */
export interface StoredPartSource extends PartSource {
  readonly chosen: boolean;
}

/** Where a job's parts can be had, oldest first; deleted sources are left out. */
export async function partSourcesOf(jobId: number): Promise<StoredPartSource[]> {
  const rows = await PartSourceRow.findAll({
    where: { jobId, struckAt: { [Op.is]: null } },
    order: [["takenAt", "ASC"]],
  });
  return rows.map(({ id, part, source, number, priceMinor, arrivesOn, chosen }) => ({
    id,
    part,
    source,
    number: number ?? null,
    priceMinor,
    arrivesOn: arrivesOn ?? null,
    chosen: chosen === 1,
  }));
}

/** Stores where a part can be had; the same one sent twice is stored once. */
export const addPartSource = (jobId: number, source: PartSource, takenAt: Date): Promise<JobRefusal | null> =>
  writeToJob(
    jobId,
    openStages,
    (transaction) => PartSourceRow.create({ ...source, jobId, chosen: 0, takenAt }, { transaction }),
    (transaction) => PartSourceRow.findByPk(source.id, { attributes: ["jobId"], transaction }),
  );

/** Takes a part from a source; the lines of work that fit it new get its source, number and price. */
export const choosePartSource = (jobId: number, id: string): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, async (transaction) => {
    const row = await PartSourceRow.findOne({ where: { id, jobId, struckAt: null }, transaction });
    if (!row) return;
    await PartSourceRow.update({ chosen: 0 }, { where: { jobId, part: row.part }, transaction });
    await PartSourceRow.update({ chosen: 1 }, { where: { id }, transaction });
    await intoLines(jobId, row, transaction);
  });

async function intoLines(jobId: number, row: PartSourceRow, transaction: Transaction): Promise<void> {
  const lines = await WorkRow.findAll({
    where: { jobId, part: row.part, state: "planned", struckAt: null },
    transaction,
  });
  for (const line of lines) {
    const body = storedColumns.works.body.parse(line.body);
    const next = {
      ...body,
      source: row.source,
      priceMinor: row.priceMinor,
      ...(row.number ? { number: row.number } : {}),
    };
    await WorkRow.update({ body: JSON.stringify(next) }, { where: { id: line.id }, transaction });
  }
}

/** Deletes a source. */
export const deletePartSource = (jobId: number, id: string, struckAt: Date): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, (transaction) =>
    PartSourceRow.update({ struckAt, chosen: 0 }, { where: { id, jobId }, transaction }),
  );
