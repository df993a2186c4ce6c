import type { JobRefusal } from "@core/records/jobStage";
import { Op } from "sequelize";
import { actingName } from "../acting.server";
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
  /** Who sent it; null if that is not known. */
  readonly who: string | null;
}

const asideOf = ({ id, jobId, address, fields, words, refusal, at, who }: SetAsideRow): SetAside => ({
  id,
  jobId,
  address: storedColumns.setAside.address.parse(address),
  fields: storedColumns.setAside.fields.parse(fields),
  words,
  refusal: storedColumns.setAside.refusal.parse(refusal),
  at,
  who: who ?? null,
});

/** Keeps an entry that a job did not take, under the name of whoever sends it; resolves once it is on disk. */
export async function keepAside({ fields, refusal, ...own }: Omit<SetAside, "who">): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    SetAsideRow.upsert(
      {
        ...own,
        fields: JSON.stringify(fields),
        refusal: JSON.stringify(refusal),
        who: actingName(),
        decidedAt: null,
        stored: null,
      },
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
  return rows.map(asideOf);
}

/** An undecided entry of a job; null if there is none with that id. */
export async function asideWith(jobId: number, id: string): Promise<SetAside | null> {
  const row = await SetAsideRow.findOne({ where: { id, jobId, decidedAt: { [Op.is]: null } } });
  return row && asideOf(row);
}

/** Marks it as decided: stored after all, or discarded. The row stays in the database. */
export async function decideAside(
  jobId: number,
  id: string,
  decided: "stored" | "discarded",
  decidedAt: Date,
): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    SetAsideRow.update(
      { decidedAt, stored: decided === "stored" ? 1 : 0 },
      { where: { id, jobId, decidedAt: { [Op.is]: null } }, transaction },
    ),
  );
}
