import type { Transaction } from "sequelize";
import { database } from "../database.server";
import { CircuitNoteRow } from "../models/shelfModels.server";

/** A hint about a circuit for the next person: which screw is bad, what the plug's tab looks like. */
export interface CircuitNote {
  readonly id: string;
  readonly words: string;
  readonly takenAt: Date;
  readonly struckAt: Date | null;
}

/** Notes of a circuit in any version, oldest first. */
export async function circuitNotesOf(shelfId: string): Promise<CircuitNote[]> {
  const rows = await CircuitNoteRow.findAll({ where: { shelfId }, order: [["takenAt", "ASC"]] });
  return rows.map(({ id, words, takenAt, struckAt }) => ({ id, words, takenAt, struckAt: struckAt ?? null }));
}

/** Adds a note inside the caller's write; one that exists by id stays unchanged. */
export async function insertCircuitNote(
  shelfId: string,
  note: Omit<CircuitNote, "struckAt">,
  transaction: Transaction,
): Promise<void> {
  if (await CircuitNoteRow.findByPk(note.id, { transaction })) return;
  await CircuitNoteRow.create({ ...note, shelfId }, { transaction });
}

/** Stores a note; the same one sent twice is stored once. */
export async function addCircuitNote(shelfId: string, note: Omit<CircuitNote, "struckAt">): Promise<void> {
  const store = await database();
  await store.write((transaction) => insertCircuitNote(shelfId, note, transaction));
}

/** Deletes a note, or restores it. */
export async function deleteCircuitNote(shelfId: string, id: string, struckAt: Date | null): Promise<void> {
  const store = await database();
  await store.write((transaction) =>
    CircuitNoteRow.update({ struckAt }, { where: { id, shelfId }, transaction }),
  );
}
