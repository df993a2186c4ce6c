import type { PartDescription } from "@core/match/partDescription";
import { plainNumber } from "@core/match/supersession";
import type { JobRefusal } from "@core/records/jobStage";
import type { Transaction } from "sequelize";
import { database } from "../database.server";
import { MatchRow, PartRow } from "../models/moneyModels.server";
import { type MatchOverride, storedColumns } from "../storedColumns";
import { openStages, writeToJob } from "./jobGate.server";

/** Every part the shop has described, by number. */
export async function listParts(): Promise<PartDescription[]> {
  const rows = await PartRow.findAll({ order: [["number", "ASC"]] });
  return rows.flatMap(({ body }) => {
    const part = storedColumns.parts.body.safeParse(body);
    return part.success ? [part.data] : [];
  });
}

/** Stores a part's description inside the caller's write; one with the same number is replaced. */
export async function insertPart(part: PartDescription, transaction: Transaction): Promise<void> {
  await PartRow.upsert({ number: plainNumber(part.number), body: JSON.stringify(part) }, { transaction });
}

/**
 * Stores a part's description.
 * @returns false, without storing, if its number exists and `again` is not set
 */
export async function storePart(part: PartDescription, again = false): Promise<boolean> {
  const store = await database();
  return store.write(async (transaction) => {
    if (!again && (await PartRow.findByPk(plainNumber(part.number), { transaction }))) return false;
    await insertPart(part, transaction);
    return true;
  });
}

/** The parts a job compares. */
export interface StoredMatch {
  readonly part: string;
  readonly oldNumber: string | null;
  readonly newNumber: string | null;
  readonly overrides: readonly MatchOverride[];
}

/** A job's comparisons, by part of its circuit. */
export async function matchesOf(jobId: number): Promise<StoredMatch[]> {
  const rows = await MatchRow.findAll({ where: { jobId }, order: [["part", "ASC"]] });
  return rows.map(({ part, oldNumber, newNumber, overrides }) => ({
    part,
    oldNumber,
    newNumber,
    overrides: storedColumns.matches.overrides.parse(overrides),
  }));
}

/** Stores which parts a job compares for a part of its circuit; another choice of parts drops the overrides. */
export const setMatch = (
  jobId: number,
  { part, oldNumber, newNumber, overrides }: StoredMatch,
): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, (transaction) =>
    MatchRow.upsert(
      { id: `${jobId} ${part}`, jobId, part, oldNumber, newNumber, overrides: JSON.stringify(overrides) },
      { transaction },
    ),
  );
