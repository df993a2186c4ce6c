import type { ProofFinding, ProofJudgement } from "@core/proof/proofFinding";
import type { JobRefusal } from "@core/records/jobStage";
import type { Transaction } from "sequelize";
import { ProofRow } from "../models/entryModels.server";
import { storedColumns } from "../storedColumns";
import { writeToJob } from "./jobGate.server";

/** The result of one step of a final check, with its judgement at the time. */
export interface ProofEntry {
  readonly id: string;
  readonly jobId: number;
  readonly step: string;
  readonly finding: ProofFinding;
  readonly judged: ProofJudgement;
  readonly takenAt: Date;
}

/** A job's check steps, with the latest finding of each. */
export async function proofsOf(jobId: number, since: Date | null): Promise<ProofEntry[]> {
  const rows = await ProofRow.findAll({ where: { jobId }, order: [["takenAt", "ASC"]] });
  const latest = new Map<string, ProofEntry>();
  for (const row of rows) {
    if (since && row.takenAt < since) continue;
    latest.set(row.step, {
      id: row.id,
      jobId: row.jobId,
      step: row.step,
      finding: storedColumns.proofs.body.parse(row.body),
      judged: storedColumns.proofs.judged.parse(row.judged),
      takenAt: row.takenAt,
    });
  }
  return [...latest.values()];
}

/** Writes check steps; existing ones stay unchanged. */
export async function insertProofs(entries: readonly ProofEntry[], transaction: Transaction): Promise<void> {
  await ProofRow.bulkCreate(
    entries.map(({ id, jobId, step, finding, judged, takenAt }) => ({
      id,
      jobId,
      step,
      body: JSON.stringify(finding),
      judged,
      takenAt,
    })),
    { transaction, ignoreDuplicates: true },
  );
}

/** Stores one check step of a job whose final check is due; sent twice it is stored once. */
export const addProof = (entry: ProofEntry): Promise<JobRefusal | null> =>
  writeToJob(
    entry.jobId,
    ["proof-due"],
    (transaction) => insertProofs([entry], transaction),
    (transaction) => ProofRow.findByPk(entry.id, { attributes: ["jobId"], transaction }),
  );
