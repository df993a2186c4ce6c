import { parsePracticeAct } from "@core/formats/practiceFile";
import type { StoppingCosts } from "@core/money/stoppingCosts";
import type { PracticeAct } from "@core/practice/practiceBay";
import type { PracticeCase } from "@core/practice/practiceCase";
import { freshRecall, type Recall } from "@core/practice/spacedRepetition";
import { database } from "../database.server";
import {
  LearnerRow,
  PracticeActRow,
  PracticeAnswerRow,
  PracticeCaseRow,
  RecallRow,
} from "../models/practiceModels.server";
import { storedColumns } from "../storedColumns";

/** A stored simulated vehicle in the bay. */
export interface StoredCase {
  readonly id: string;
  readonly learner: string;
  readonly circuitId: string;
  readonly title: string;
  readonly startedAt: Date;
  readonly endedAt: Date | null;
  /** The fault, for the bay and, once the case is over, the debrief. */
  readonly hidden: PracticeCase;
  readonly costs: StoppingCosts;
}

const caseOf = (row: PracticeCaseRow): StoredCase => ({
  id: row.id,
  learner: row.learner,
  circuitId: row.circuitId,
  title: row.title,
  startedAt: row.startedAt,
  endedAt: row.endedAt,
  hidden: storedColumns.practiceCases.hidden.parse(row.hidden),
  costs: JSON.parse(row.costs) as StoppingCosts,
});

/** All learners, by label. */
export async function listLearners(): Promise<string[]> {
  const rows = await LearnerRow.findAll({ order: [["label", "ASC"]] });
  return rows.map(({ label }) => label);
}

/** Adds a learner; an existing one stays unchanged. */
export async function addLearner(label: string, now: Date): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    if (await LearnerRow.findByPk(label, { transaction })) return;
    await LearnerRow.create({ label, createdAt: now }, { transaction });
  });
}

/** Starts a case; the same one started twice is one. */
export async function beginCase(own: Omit<StoredCase, "endedAt">): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    if (await PracticeCaseRow.findByPk(own.id, { transaction })) return;
    await PracticeCaseRow.create(
      {
        id: own.id,
        learner: own.learner,
        circuitId: own.circuitId,
        title: own.title,
        level: own.hidden.level,
        hidden: JSON.stringify(own.hidden),
        costs: JSON.stringify(own.costs),
        startedAt: own.startedAt,
        endedAt: null,
      },
      { transaction },
    );
  });
}

/** A case by id; null if there is none. */
export async function findCase(id: string): Promise<StoredCase | null> {
  const row = await PracticeCaseRow.findByPk(id);
  return row ? caseOf(row) : null;
}

/** Cases of a learner, the latest first. */
export async function casesOf(learner: string): Promise<StoredCase[]> {
  const rows = await PracticeCaseRow.findAll({
    where: { learner },
    order: [["startedAt", "DESC"]],
    limit: 500,
  });
  return rows.map(caseOf);
}

/** The actions of a case, in order. */
export async function actsOf(caseId: string): Promise<PracticeAct[]> {
  const rows = await PracticeActRow.findAll({ where: { caseId }, order: [["position", "ASC"]] });
  return rows.map(({ body }) => parsePracticeAct(body));
}

/**
 * Performs one action in a case: its result is computed from all earlier actions and stored in the same write.
 * @param id of the action; sent again, it is not performed twice
 * @returns what was stored, or why it was refused
 */
export async function act(
  caseId: string,
  id: string,
  now: Date,
  work: (
    acts: readonly PracticeAct[],
  ) => { readonly ok: true; readonly act: PracticeAct } | { readonly ok: false; readonly why: string },
): Promise<{ readonly ok: true; readonly act: PracticeAct } | { readonly ok: false; readonly why: string }> {
  const store = await database();
  return store.write(async (transaction) => {
    const known = await PracticeActRow.findByPk(id, { transaction });
    if (known) return { ok: true, act: parsePracticeAct(known.body) };
    const rows = await PracticeActRow.findAll({
      where: { caseId },
      order: [["position", "ASC"]],
      transaction,
    });
    const done = work(rows.map(({ body }) => parsePracticeAct(body)));
    if (!done.ok) return done;
    await PracticeActRow.create(
      { id, caseId, position: rows.length, body: JSON.stringify(done.act), takenAt: now },
      { transaction },
    );
    const over = done.act.act === "give-up" || (done.act.act === "drive" && done.act.held);
    if (over) await PracticeCaseRow.update({ endedAt: now }, { where: { id: caseId }, transaction });
    return done;
  });
}

/** An answer to a lesson's question. */
export interface LessonAnswer {
  readonly id: string;
  readonly learner: string;
  /** Lesson and kind of question: `paths/working-speed`. */
  readonly item: string;
  readonly seed: number;
  readonly right: boolean;
  readonly seconds: number;
  readonly answeredAt: Date;
}

/** The learning state of an item, and when it is asked again. */
export interface StoredRecall extends Recall {
  readonly item: string;
  readonly dueAt: Date;
}

export async function recallsOf(learner: string): Promise<StoredRecall[]> {
  const rows = await RecallRow.findAll({ where: { learner }, order: [["item", "ASC"]] });
  return rows.map(({ item, ease, repetitions, intervalDays, dueAt }) => ({
    item,
    ease,
    repetitions,
    intervalDays,
    dueAt,
  }));
}

/**
 * Stores an answer and when its question is asked again, in one write; sent again it counts once.
 * @param next the item's state after the answer, from its state before
 */
export async function storeAnswer(
  answer: LessonAnswer,
  next: (recall: Recall) => { readonly recall: Recall; readonly dueAt: Date },
): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    if (await PracticeAnswerRow.findByPk(answer.id, { transaction })) return;
    await PracticeAnswerRow.create({ ...answer, right: answer.right ? 1 : 0 }, { transaction });
    const key = { learner: answer.learner, item: answer.item };
    const known = await RecallRow.findOne({ where: key, transaction });
    const { recall, dueAt } = next(known ?? freshRecall);
    const row = {
      ...key,
      ease: recall.ease,
      repetitions: recall.repetitions,
      intervalDays: recall.intervalDays,
      dueAt,
    };
    if (known) await known.update(row, { transaction });
    else await RecallRow.create(row, { transaction });
  });
}

/** Answers of a learner, oldest first. */
export async function answersOf(learner: string): Promise<LessonAnswer[]> {
  const rows = await PracticeAnswerRow.findAll({ where: { learner }, order: [["answeredAt", "ASC"]] });
  return rows.map((row) => ({
    id: row.id,
    learner: row.learner,
    item: row.item,
    seed: row.seed,
    right: row.right === 1,
    seconds: row.seconds,
    answeredAt: row.answeredAt,
  }));
}
