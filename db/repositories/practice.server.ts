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
} from "../practiceModels.server";
import { storedColumns } from "../storedColumns";

/** A simulated vehicle in the bay, as it is stored. */
export interface StoredCase {
  readonly id: string;
  readonly learner: string;
  readonly circuitId: string;
  readonly title: string;
  readonly startedAt: Date;
  readonly endedAt: Date | null;
  /** The fault: for the bay and, once the case is over, the debrief. */
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

/** Everybody who practises, by label. */
export async function listLearners(): Promise<string[]> {
  const rows = await LearnerRow.findAll({ order: [["label", "ASC"]] });
  return rows.map(({ label }) => label);
}

/** Puts a learner down; one who is there already stays as they are. */
export async function addLearner(label: string, now: Date): Promise<void> {
  const store = await database();
  await store.write(async (transaction) => {
    if (await LearnerRow.findByPk(label, { transaction })) return;
    await LearnerRow.create({ label, createdAt: now }, { transaction });
  });
}

/** Begins a case; the same one begun twice is one. */
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

/** A case by id; null where there is none. */
export async function findCase(id: string): Promise<StoredCase | null> {
  const row = await PracticeCaseRow.findByPk(id);
  return row ? caseOf(row) : null;
}

/** Cases of a learner, the last begun first. */
export async function casesOf(learner: string): Promise<StoredCase[]> {
  const rows = await PracticeCaseRow.findAll({
    where: { learner },
    order: [["startedAt", "DESC"]],
    limit: 500,
  });
  return rows.map(caseOf);
}

/** What was done in a case, in order. */
export async function actsOf(caseId: string): Promise<PracticeAct[]> {
  const rows = await PracticeActRow.findAll({ where: { caseId }, order: [["position", "ASC"]] });
  return rows.map(({ body }) => parsePracticeAct(body));
}

/**
 * Does one thing in a case: what comes of it is worked out from all that was done before, and stored in the same write.
 * @param id of what is done: sent again it is not done twice
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
  /** Lesson and form: `paths/working-speed`. */
  readonly item: string;
  readonly seed: number;
  readonly right: boolean;
  readonly seconds: number;
  readonly answeredAt: Date;
}

/** How a thing that is learnt stands with a learner, and when it is asked again. */
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
 * Stores an answer and when its question comes again, in one write; sent again it counts once.
 * @param next how the item stands after the answer, from how it stood before
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

/** Answers of a learner, the first first. */
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
