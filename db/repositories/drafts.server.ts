import type { DraftBase, DraftStep } from "@core/trace/draft";
import type { CircuitName } from "@core/trace/traceCircuit";
import type { Transaction } from "sequelize";
import { database } from "../database.server";
import { DraftRow } from "../models/shelfModels.server";
import { storedColumns } from "../storedColumns";

/** A circuit being traced: its steps, and how many are active; later ones are undone. */
export interface Draft {
  readonly id: string;
  readonly name: CircuitName;
  readonly base: DraftBase;
  readonly steps: readonly DraftStep[];
  readonly position: number;
  /** Id of the last step made or undone; sent again, it is not applied twice. */
  readonly taken: string;
  readonly changedAt: Date;
}

const columns = storedColumns.drafts;

const draftOf = (row: DraftRow): Draft => ({
  id: row.id,
  name: columns.name.parse(row.name),
  base: columns.base.parse(row.base),
  steps: columns.steps.parse(row.steps),
  position: row.position,
  taken: row.taken,
  changedAt: row.changedAt,
});

/** A draft by id; null if there is none. */
export async function findDraft(id: string): Promise<Draft | null> {
  const row = await DraftRow.findByPk(id);
  return row ? draftOf(row) : null;
}

/** Names of the drafts not yet on the shelf, the last changed first. */
export async function listDrafts(): Promise<Pick<Draft, "id" | "name" | "changedAt">[]> {
  const rows = await DraftRow.findAll({
    attributes: ["id", "name", "changedAt"],
    order: [["changedAt", "DESC"]],
  });
  return rows.map(({ id, name, changedAt }) => ({
    id,
    name: columns.name.parse(name),
    changedAt,
  }));
}

/** Starts a draft; the same one started twice is one. */
export async function beginDraft(id: string, name: CircuitName, base: DraftBase): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    if (await DraftRow.findByPk(id, { transaction })) return;
    await DraftRow.create(
      {
        id,
        name: JSON.stringify(name),
        base: JSON.stringify(base),
        steps: "[]",
        position: 0,
        taken: "",
        changedAt: new Date(),
      },
      { transaction },
    );
  });
}

async function changed(
  id: string,
  change: (draft: Draft) => Partial<Pick<Draft, "name" | "steps" | "position" | "taken">>,
): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    const row = await DraftRow.findByPk(id, { transaction });
    if (!row) return;
    const { name, steps, position, taken } = change(draftOf(row));
    await row.update(
      {
        ...(name ? { name: JSON.stringify(name) } : {}),
        ...(steps ? { steps: JSON.stringify(steps) } : {}),
        ...(position === undefined ? {} : { position }),
        ...(taken === undefined ? {} : { taken }),
        changedAt: new Date(),
      },
      { transaction },
    );
  });
}

/** Adds a step after the active ones and drops the undone ones. The last step sent again changes nothing. */
export const addDraftStep = (id: string, step: DraftStep, stepId: string): Promise<void> =>
  changed(id, ({ steps, position, taken }) =>
    taken === stepId
      ? {}
      : { steps: [...steps.slice(0, position), step], position: position + 1, taken: stepId },
  );

/** Undoes or redoes one step; at either end nothing happens. The last undo or redo sent again changes nothing. */
export const moveDraft = (id: string, by: 1 | -1, stepId: string): Promise<void> =>
  changed(id, ({ steps, position, taken }) =>
    taken === stepId ? {} : { position: Math.min(steps.length, Math.max(0, position + by)), taken: stepId },
  );

export const nameDraft = (id: string, name: CircuitName): Promise<void> => changed(id, () => ({ name }));

/** Removes a draft, in the transaction that put its circuit on the shelf or by itself. */
export async function dropDraft(id: string, transaction?: Transaction): Promise<void> {
  if (transaction) await DraftRow.destroy({ where: { id }, transaction });
  else await (await database()).write((own) => DraftRow.destroy({ where: { id }, transaction: own }));
}
