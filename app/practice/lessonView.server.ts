import { pathBoard } from "@core/diagnose/explain/pathBoard";
import {
  curriculum,
  exerciseForms,
  exerciseOn,
  isRight,
  type Lesson,
  passedAfter,
} from "@core/practice/curriculum";
import type { PracticeCircuit } from "@core/practice/practiceCase";
import { dueAt, qualityOf, recallAfter } from "@core/practice/spacedRepetition";
import {
  answersOf,
  type LessonAnswer,
  recallsOf,
  type StoredRecall,
  storeAnswer,
} from "@db/repositories/practice.server";
import { exerciseWords } from "@words/exerciseWords";
import { lessonWords } from "@words/lessonWords";
import { partName } from "@words/partName";
import { data } from "react-router";
import { layoutOf } from "../sheet/layouts.server";
import { dayText } from "../text/clock";
import { randomId } from "../text/randomId";
import { shopZone } from "../text/shopZone.server";
import { practiceCircuitAt, sampleExercise } from "./practiceCircuits.server";

/** A lesson of an address; answers 404 if there is none. */
export function lessonAt(id: string | undefined): Lesson {
  const lesson = curriculum.find((own) => own.id === id);
  if (!lesson) throw data("There is no such lesson.", { status: 404 });
  return lesson;
}

/** The kind of question to ask next: one that is due, otherwise the one answered least often. */
function nextItem(
  lesson: Lesson,
  answers: readonly LessonAnswer[],
  recalls: readonly StoredRecall[],
  now: Date,
): string {
  const items = Object.keys(lesson.forms).map((form) => `${lesson.id}/${form}`);
  const due = recalls.find(({ item, dueAt: at }) => items.includes(item) && at <= now);
  if (due) return due.item;
  const inARow = (item: string): number => {
    let count = 0;
    for (const own of answers.filter((answer) => answer.item === item).reverse()) {
      if (!own.right) break;
      count += 1;
    }
    return Math.min(passedAfter, count);
  };
  return [...items].sort((a, b) => inARow(a) - inARow(b))[0] ?? items[0] ?? "";
}

/** A lesson's page: its text, and a question without its answer. */
export async function lessonView(lesson: Lesson, learner: string, now: Date) {
  const [all, recalls] = await Promise.all([answersOf(learner), recallsOf(learner)]);
  const answers = all.filter((own) => own.item.startsWith(`${lesson.id}/`));
  const item = nextItem(lesson, answers, recalls, now);
  const drawn = await sampleExercise(item);
  const asked = drawn && exerciseWords(drawn.on.exact.circuit, drawn.exercise);
  const place = curriculum.indexOf(lesson);
  return {
    lesson: { id: lesson.id, ...lessonWords[lesson.id] },
    learner,
    next: curriculum[place + 1]?.id ?? null,
    given: answers.slice(-8).map(({ right }) => right),
    question: drawn &&
      asked && {
        item,
        seed: drawn.seed,
        rowId: drawn.rowId,
        token: randomId(),
        words: asked.question,
        setup: drawn.exercise.setup,
        marked: drawn.exercise.marked,
        many: drawn.exercise.many,
        answers: asked.answers,
        circuit: drawn.on.exact.circuit,
        layout: layoutOf(drawn.on.compiled.netlist),
      },
  };
}

export type LessonData = Awaited<ReturnType<typeof lessonView>>;

/** An answer as the page sends it. */
export interface GivenAnswer {
  readonly token: string;
  readonly item: string;
  readonly seed: number;
  readonly rowId: string;
  readonly seconds: number;
  readonly chosen: readonly string[];
}

/** The path board of a circuit, without readings. */
function boardOf({ exact }: PracticeCircuit) {
  return {
    settings: exact.circuit.settings,
    lines: pathBoard(exact).map(({ id, part, amps }) => ({
      id,
      part,
      name: partName(exact.circuit, part),
      amps,
      shared: false,
      p: 0,
      cleared: false,
    })),
  };
}

/** Judges an answer, stores it, and says why it was right or wrong and when it is asked again. */
export async function judgeAnswer(learner: string, given: GivenAnswer, now: Date) {
  const { item, seed, rowId, token, seconds } = given;
  if (!exerciseForms.some((own) => own.item === item))
    throw data("There is no such question.", { status: 404 });
  const on = await practiceCircuitAt(rowId);
  const exercise = exerciseOn(item, on, seed);
  if (!exercise) throw data("There is no such question.", { status: 404 });
  const right = isRight(exercise, given.chosen);
  let again = now;
  await storeAnswer({ id: token, learner, item, seed, right, seconds, answeredAt: now }, (recall) => {
    const next = recallAfter(recall, qualityOf(right, seconds));
    // A wrong answer is asked again in this session, and then by the algorithm.
    again = new Date(right ? dueAt(next, now.getTime()) : now.getTime());
    return { recall: next, dueAt: again };
  });
  return {
    token,
    right,
    rightIds: exercise.right,
    chosen: given.chosen,
    why: exerciseWords(on.exact.circuit, exercise).why,
    again: right ? dayText(again, shopZone()) : null,
    // The board is the answer to these, so it is shown after the answer.
    board: item.startsWith("paths/") ? boardOf(on) : null,
  };
}

/** The response to an answer: its judgement, or why it could not be judged. */
export interface LessonReply {
  readonly problem: string | null;
  readonly judged: Awaited<ReturnType<typeof judgeAnswer>> | null;
}
