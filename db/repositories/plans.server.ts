import type { AccessPlan } from "@core/access/plan";
import { Op, type Transaction } from "sequelize";
import { database } from "../database.server";
import { PlanBodyRow, PlanNoteRow, PlanRow } from "../models/accessPlanModels.server";
import { storedColumns } from "../storedColumns";

/** A vehicle's current access plan, and whether a change can be undone or redone. */
export interface StoredPlan {
  readonly shelfId: string;
  readonly plan: AccessPlan;
  readonly undo: boolean;
  readonly redo: boolean;
}

function planOf(body: string): AccessPlan {
  const plan = storedColumns.planBodies.body.safeParse(body);
  if (!plan.success) throw new Error(`a stored plan was damaged: ${plan.error.message}`);
  return plan.data;
}

/** The plan of a circuit by its own id, in any version; null if it has none. */
export async function findPlan(shelfId: string): Promise<StoredPlan | null> {
  const row = await PlanRow.findByPk(shelfId);
  if (!row) return null;
  const [body, last] = await Promise.all([
    PlanBodyRow.findOne({ where: { shelfId, number: row.position } }),
    PlanBodyRow.max<number, PlanBodyRow>("number", { where: { shelfId } }),
  ]);
  if (!body) return null;
  return { shelfId, plan: planOf(body.body), undo: row.position > 1, redo: row.position < last };
}

/** Stores a plan as the next step inside the caller's write; undone steps are dropped. */
export async function insertPlan(
  shelfId: string,
  plan: AccessPlan,
  taken: string,
  transaction: Transaction,
): Promise<void> {
  const row = await PlanRow.findByPk(shelfId, { transaction });
  if (row?.taken === taken) return;
  const position = (row?.position ?? 0) + 1;
  await PlanBodyRow.destroy({ where: { shelfId, number: { [Op.gte]: position } }, transaction });
  await PlanBodyRow.create(
    { shelfId, number: position, body: JSON.stringify(plan), takenAt: new Date() },
    { transaction },
  );
  if (row) await row.update({ position, taken }, { transaction });
  else await PlanRow.create({ shelfId, position, taken }, { transaction });
}

/** Stores a plan as the next step; the same change sent twice is one. Resolves once it is on disk. */
export async function storePlan(shelfId: string, plan: AccessPlan, taken: string): Promise<void> {
  const store = await database();
  await store.write((transaction) => insertPlan(shelfId, plan, taken, transaction));
}

/** Undoes or redoes one change; at either end nothing happens. */
export async function movePlan(shelfId: string, by: 1 | -1, taken: string): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    const row = await PlanRow.findByPk(shelfId, { transaction });
    if (!row || row.taken === taken) return;
    const last = await PlanBodyRow.max<number, PlanBodyRow>("number", { where: { shelfId }, transaction });
    const position = Math.min(last, Math.max(1, row.position + by));
    await row.update({ position, taken }, { transaction });
  });
}

/** A note on a step, kept with the vehicle's model for the next job. */
export interface PlanNote {
  readonly id: string;
  readonly step: string;
  readonly words: string;
  readonly takenAt: Date;
  readonly struckAt: Date | null;
}

/** Notes on a plan's steps, oldest first. */
export async function planNotesOf(shelfId: string): Promise<PlanNote[]> {
  const rows = await PlanNoteRow.findAll({ where: { shelfId }, order: [["takenAt", "ASC"]] });
  return rows.map(({ id, step, words, takenAt, struckAt }) => ({
    id,
    step,
    words,
    takenAt,
    struckAt: struckAt ?? null,
  }));
}

/** Stores a note on a step; the same one sent twice is stored once. */
export async function addPlanNote(shelfId: string, note: Omit<PlanNote, "struckAt">): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    if (await PlanNoteRow.findByPk(note.id, { transaction })) return;
    await PlanNoteRow.create({ ...note, shelfId }, { transaction });
  });
}

/** Deletes a note, or restores it. */
export async function deletePlanNote(shelfId: string, id: string, struckAt: Date | null): Promise<void> {
  const store = await database();
  await store.alone(() => PlanNoteRow.update({ struckAt }, { where: { id, shelfId } }));
}
