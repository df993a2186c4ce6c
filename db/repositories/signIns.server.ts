import { QueryTypes } from "sequelize";
import { z } from "zod";
import { database } from "../database.server";

/** What happened at a door of the shop. */
export const signInKinds = ["in", "out", "wrong-pin", "added", "removed", "new-pin"] as const;
export type SignInKind = (typeof signInKinds)[number];

/** One line of the shop's own trail: who signed in where, and who was added or removed. */
export interface SignInLine {
  readonly id: number;
  readonly at: Date;
  readonly who: string;
  /** The device, in words. */
  readonly place: string;
  readonly what: SignInKind;
}

/** Adds a line; the database refuses to change it. */
export async function noteSignIn(
  who: string,
  place: string,
  what: SignInKind,
  at = new Date(),
): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    store.sequelize.query("INSERT INTO signIns (at, who, place, what) VALUES (:at, :who, :place, :what)", {
      replacements: { at: at.toISOString(), who, place, what },
      transaction,
    }),
  );
}

const rows = z.array(
  z.object({ id: z.number(), at: z.string(), who: z.string(), place: z.string(), what: z.enum(signInKinds) }),
);

/** The last lines, the newest first. */
export async function lastSignIns(most: number): Promise<SignInLine[]> {
  const { sequelize } = await database();
  const found = rows.parse(
    await sequelize.query("SELECT id, at, who, place, what FROM signIns ORDER BY id DESC LIMIT :most", {
      type: QueryTypes.SELECT,
      replacements: { most },
    }),
  );
  return found.map(({ at, ...line }) => ({ ...line, at: new Date(at) }));
}
