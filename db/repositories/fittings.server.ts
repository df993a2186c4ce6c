import { Op, type Transaction } from "sequelize";
import { FittingRow } from "../models/memoryModels.server";
import { type FittingOutcome, storedColumns } from "../storedColumns";
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
