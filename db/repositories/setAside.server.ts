import type { JobRefusal } from "@core/records/jobStage";
import { Op } from "sequelize";
import { database } from "../database.server";
import { SetAsideRow } from "../models/jobModels.server";
import { storedColumns } from "../storedColumns";

/** An entry that its job no longer took. */
export interface SetAside {
  /** The entry's id, so that one sent twice is kept once. */
  readonly id: string;
  readonly jobId: number;
  /** Address it was sent to: `/jobs/4/verdict`. */
  readonly address: string;
  readonly fields: Readonly<Record<string, string>>;
  /** Its text: `R1 is fitted`. */
  readonly words: string;
  readonly refusal: JobRefusal;
  readonly at: Date;
}

/** Keeps an entry that a job did not take; resolves once it is on disk. */
export async function keepAside({ fields, refusal, ...own }: SetAside): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    SetAsideRow.upsert(
      { ...own, fields: JSON.stringify(fields), refusal: JSON.stringify(refusal), decidedAt: null },
      { transaction },
    ),
  );
}

/** A job's undecided entries, oldest first. */
export async function setAsideOf(jobId: number): Promise<SetAside[]> {
  const rows = await SetAsideRow.findAll({
    where: { jobId, decidedAt: { [Op.is]: null } },
    order: [["at", "ASC"]],
  });
  return rows.map(({ id, address, fields, words, refusal, at }) => ({
    id,
    jobId,
    address: storedColumns.setAside.address.parse(address),
    fields: storedColumns.setAside.fields.parse(fields),
    words,
    refusal: storedColumns.setAside.refusal.parse(refusal),
    at,
  }));
}

/** Marks it as decided: stored after all, or deleted. The row stays in the database. */
export async function decideAside(jobId: number, id: string, decidedAt: Date): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    SetAsideRow.update({ decidedAt }, { where: { id, jobId }, transaction }),
  );
}
