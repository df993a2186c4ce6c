import type { FailedRepair, OldPartState } from "@core/diagnose/history/failedRepair";
import type { JobRefusal } from "@core/records/jobStage";
import { Op, type Transaction } from "sequelize";
import { FittingRow } from "../models/memoryModels.server";
import { type FittingOutcome, storedColumns } from "../storedColumns";
import { openStages, writeToJob } from "./jobGate.server";
import { enterParts } from "./works.server";

/** The verdict on which parts were fitted. */
export interface VerdictThen {
  readonly p: number;
  readonly state: "open" | "settled" | "best-guess";
  readonly looks: number;
  readonly minutes: number;
}

/** Parts fitted on a verdict, and the outcome. */
export interface Fitting extends VerdictThen {
  readonly parts: readonly string[];
  readonly fittedAt: Date;
  readonly outcome: FittingOutcome;
  /** What the old parts turned out to be, by part, as far as somebody looked. */
  readonly found: Readonly<Record<string, OldPartState>>;
}

const columns = storedColumns.fittings;

/** Parts fitted in a job, oldest first. */
export async function fittingsOf(jobId: number): Promise<Fitting[]> {
  const rows = await FittingRow.findAll({ where: { jobId }, order: [["id", "ASC"]] });
  return rows.map((row) => ({
    parts: columns.parts.parse(row.parts),
    p: row.p,
    state: columns.state.parse(row.state),
    looks: row.looks,
    minutes: row.minutes,
    fittedAt: row.fittedAt,
    outcome: columns.outcome.parse(row.outcome),
    found: columns.found.parse(row.found ?? null) ?? {},
  }));
}

/**
 * Stores parts fitted on a verdict, with what else was planned; an earlier fitting without a final check is withdrawn.
 * @returns all parts that are then fitted
 */
export async function insertFitting(
  jobId: number,
  parts: readonly string[],
  { p, state, looks: tests, minutes }: VerdictThen,
  fittedAt: Date,
  transaction: Transaction,
): Promise<string[]> {
  await settleFitting(jobId, "withdrawn", fittedAt, transaction);
  const all = await enterParts(jobId, parts, "done", fittedAt, transaction);
  await FittingRow.create(
    { jobId, parts: JSON.stringify(all), p, state, looks: tests, minutes, fittedAt, outcome: "pending" },
    { transaction },
  );
  return all;
}

/** Stores a fitting of a job from elsewhere that failed its check. */
export async function insertFailedFitting(
  jobId: number,
  { parts, found }: Pick<FailedRepair, "parts" | "found">,
  { p, state, looks, minutes }: VerdictThen,
  fittedAt: Date,
  transaction: Transaction,
): Promise<void> {
  await FittingRow.create(
    {
      jobId,
      parts: JSON.stringify(parts),
      p,
      state,
      looks,
      minutes,
      fittedAt,
      outcome: "failed",
      outcomeAt: fittedAt,
      found: found ? JSON.stringify(found) : null,
    },
    { transaction },
  );
}

/** Stores what an old part of a round that failed its check turned out to be; null if nobody knows after all. */
export const setOldPart = (
  jobId: number,
  round: number,
  part: string,
  state: OldPartState | null,
): Promise<JobRefusal | null> =>
  writeToJob(jobId, openStages, async (transaction) => {
    const rows = await FittingRow.findAll({
      where: { jobId, outcome: "failed" },
      order: [["id", "ASC"]],
      transaction,
    });
    const row = rows[round - 1];
    if (!row) return;
    const found = new Map(Object.entries(columns.found.parse(row.found ?? null) ?? {}));
    if (state) found.set(part, state);
    else found.delete(part);
    await row.update({ found: JSON.stringify(Object.fromEntries(found)) }, { transaction });
  });

/** Stores the outcome of the fitting whose final check was due. */
export async function settleFitting(
  jobId: number,
  outcome: FittingOutcome,
  outcomeAt: Date,
  transaction: Transaction,
): Promise<void> {
  await FittingRow.update({ outcome, outcomeAt }, { where: { jobId, outcome: "pending" }, transaction });
}

/** The repair that held did not after all, because the vehicle came back; or the comeback was undone. */
export async function cameBack(
  jobId: number,
  back: boolean,
  outcomeAt: Date,
  transaction: Transaction,
): Promise<void> {
  await FittingRow.update(
    { outcome: back ? "came-back" : "held", outcomeAt },
    { where: { jobId, outcome: { [Op.in]: ["held", "came-back"] } }, transaction },
  );
}

/** A closing was undone, so the outcome of its fitting is open again. */
export async function unproven(jobId: number, transaction: Transaction): Promise<void> {
  await FittingRow.update(
    { outcome: "withdrawn" },
    { where: { jobId, outcome: { [Op.in]: ["held", "came-back"] } }, transaction },
  );
}
