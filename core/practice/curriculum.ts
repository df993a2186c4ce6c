import { chanceFrom } from "../chance/chance";
import { sameVisit, whatProvesIt } from "./decideExercises";
import type { Exercise, ExerciseForm } from "./exercise";
import { commandVolts, rippleOfMotor, tapAndWiggle, whatKilledIt } from "./faultExercises";
import { deadSpeeds, workingSpeed } from "./pathExercises";
import type { PracticeCircuit } from "./practiceCase";
import {
  dropUnderLoad,
  dropWithoutLoad,
  floatingGround,
  ghostVolts,
  lightEitherClip,
} from "./probeExercises";

/** Lessons by name, in the order they build on each other. */
export const lessonIds = [
  "paths",
  "light",
  "drop",
  "ghost",
  "ground",
  "tap",
  "control",
  "humps",
  "causes",
  "visits",
  "proof",
] as const;
export type LessonId = (typeof lessonIds)[number];

/** A lesson's questions, computed from real circuits; `words/lessonWords.ts` has its text. */
export interface Lesson {
  readonly id: LessonId;
  /** Kinds of question, by the name they are stored under. */
  readonly forms: Readonly<Record<string, ExerciseForm>>;
}

/** The lessons in the order they build on each other. */
export const curriculum: readonly Lesson[] = [
  {
    id: "paths",
    forms: { "working-speed": workingSpeed, "dead-speeds": deadSpeeds },
  },
  {
    id: "light",
    forms: { "either-clip": lightEitherClip },
  },
  {
    id: "drop",
    forms: { "under-load": dropUnderLoad, "without-load": dropWithoutLoad },
  },
  {
    id: "ghost",
    forms: { "meter-and-light": ghostVolts },
  },
  {
    id: "ground",
    forms: { "ground-off": floatingGround },
  },
  {
    id: "tap",
    forms: { "moved-and-starts": tapAndWiggle },
  },
  {
    id: "control",
    forms: { command: commandVolts },
  },
  {
    id: "humps",
    forms: { count: rippleOfMotor },
  },
  {
    id: "causes",
    forms: { killer: whatKilledIt },
  },
  {
    id: "visits",
    forms: { "same-visit": sameVisit },
  },
  {
    id: "proof",
    forms: { "what-proves": whatProvesIt },
  },
];

/** Every kind of question by its name, `paths/working-speed`, with its lesson. */
export const exerciseForms: readonly {
  readonly item: string;
  readonly lesson: Lesson;
  readonly form: ExerciseForm;
}[] = curriculum.flatMap((lesson) =>
  Object.entries(lesson.forms).map(([name, form]) => ({ item: `${lesson.id}/${name}`, lesson, form })),
);

/** An exercise of a kind on a circuit, the same for the same seed; null if the circuit has nothing to ask. */
export function exerciseOn(item: string, on: PracticeCircuit, seed: number): Exercise | null {
  const own = exerciseForms.find((candidate) => candidate.item === item);
  const exercise = own?.form(on, chanceFrom(seed)) ?? null;
  return exercise && exercise.answers.length > 1 ? exercise : null;
}

/** Whether an answer is right: exactly the same ids. */
export const isRight = ({ right }: Pick<Exercise, "right">, chosen: readonly string[]): boolean =>
  new Set(chosen).size === right.length && right.every((id) => chosen.includes(id));

/** Number of right answers in a row that completes a kind of question. */
export const passedAfter = 3;
