import type { JobRefusal } from "@core/records/jobStage";
import { Op } from "sequelize";
import { database } from "../database.server";
import { SetAsideRow } from "../models.server";
import { storedColumns } from "../storedColumns";

/** What a page sent to a job that no longer took it. */
export interface SetAside {
  /** That of the entry, so that one sent twice is kept once. */
  readonly id: string;
  readonly jobId: number;
  /** Where it was sent: `/jobs/4/verdict`. */
  readonly address: string;
  readonly fields: Readonly<Record<string, string>>;
  /** What it says, in words: `R1 is fitted`. */
  readonly words: string;
  readonly refusal: JobRefusal;
  readonly at: Date;
}

/** Keeps what a job did not take; resolves once it is on disk. */
export async function keepAside({ fields, refusal, ...own }: SetAside): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    SetAsideRow.upsert(
      { ...own, fields: JSON.stringify(fields), refusal: JSON.stringify(refusal), decidedAt: null },
      { transaction },
    ),
  );
}

/** What is kept of a job and not decided, oldest first. */
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

/** It was decided: done after all, or thrown away. It stays in the database. */
export async function decideAside(jobId: number, id: string, decidedAt: Date): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    SetAsideRow.update({ decidedAt }, { where: { id, jobId }, transaction }),
  );
}
