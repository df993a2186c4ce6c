import { airflowSeen } from "@core/predict/reading";
import type { Transaction } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";
import { ProofRow } from "../models.server";

const seenWord = z.enum(airflowSeen);

/** One step of a proof run as it was found. */
export interface ProofEntry {
  readonly id: string;
  readonly jobId: number;
  readonly step: string;
  readonly expected: z.infer<typeof seenWord>;
  readonly seen: z.infer<typeof seenWord>;
  readonly takenAt: Date;
}

/** A job's proof steps, the latest finding of each. */
export async function proofsOf(jobId: number, since: Date | null): Promise<ProofEntry[]> {
  const rows = await ProofRow.findAll({ where: { jobId }, order: [["takenAt", "ASC"]] });
  const latest = new Map<string, ProofEntry>();
  for (const row of rows) {
    if (since && row.takenAt < since) continue;
    latest.set(row.step, {
      id: row.id,
      jobId: row.jobId,
      step: row.step,
      expected: seenWord.parse(row.expected),
      seen: seenWord.parse(row.seen),
      takenAt: row.takenAt,
    });
  }
  return [...latest.values()];
}

export async function insertProof(entry: ProofEntry, transaction: Transaction): Promise<void> {
  await ProofRow.findOrCreate({ where: { id: entry.id }, defaults: { ...entry }, transaction });
}

/** Stores one proof step; sent twice it is stored once. */
export async function addProof(entry: ProofEntry): Promise<void> {
  const store = await database();
  await store.write((transaction) => insertProof(entry, transaction));
}
