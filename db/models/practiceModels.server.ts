import { type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from "sequelize";
import { maybeMoment, moment, named, number, real, text } from "../columns";

/** A learner, by a label of their own choosing. */
export class LearnerRow extends Model<InferAttributes<LearnerRow>, InferCreationAttributes<LearnerRow>> {
  declare label: string;
  declare createdAt: Date;
}

/**
 * A simulated vehicle in the bay. `hidden` is the fault; only the bay reads it and, once the case is over, the
 * debrief.
 */
export class PracticeCaseRow extends Model<
  InferAttributes<PracticeCaseRow>,
  InferCreationAttributes<PracticeCaseRow>
> {
  declare id: string;
  declare learner: string;
  declare circuitId: string;
  declare title: string;
  declare level: string;
  declare hidden: string;
  declare costs: string;
  declare startedAt: Date;
  declare endedAt: Date | null;
}

export class PracticeActRow extends Model<
  InferAttributes<PracticeActRow>,
  InferCreationAttributes<PracticeActRow>
> {
  declare id: string;
  declare caseId: string;
  declare position: number;
  declare body: string;
  declare takenAt: Date;
}

export class PracticeAnswerRow extends Model<
  InferAttributes<PracticeAnswerRow>,
  InferCreationAttributes<PracticeAnswerRow>
> {
  declare id: string;
  declare learner: string;
  declare item: string;
  declare seed: number;
  declare right: number;
  declare seconds: number;
  declare answeredAt: Date;
}

/** When an item is asked again of a learner. */
export class RecallRow extends Model<InferAttributes<RecallRow>, InferCreationAttributes<RecallRow>> {
  declare learner: string;
  declare item: string;
  declare ease: number;
  declare repetitions: number;
  declare intervalDays: number;
  declare dueAt: Date;
}

/** The tables of the practice bay and its lessons. */
export function definePractice(sequelize: Sequelize): void {
  const plain = { sequelize, timestamps: false } as const;
  LearnerRow.init({ label: named(), createdAt: moment() }, { ...plain, tableName: "learners" });
  PracticeCaseRow.init(
    {
      id: named(),
      learner: text(),
      circuitId: text(),
      title: text(),
      level: text(),
      hidden: text(),
      costs: text(),
      startedAt: moment(),
      endedAt: maybeMoment(),
    },
    { ...plain, tableName: "practiceCases" },
  );
  PracticeActRow.init(
    { id: named(), caseId: text(), position: number(), body: text(), takenAt: moment() },
    { ...plain, tableName: "practiceActs" },
  );
  PracticeAnswerRow.init(
    {
      id: named(),
      learner: text(),
      item: text(),
      seed: number(),
      right: number(),
      seconds: real(),
      answeredAt: moment(),
    },
    { ...plain, tableName: "practiceAnswers" },
  );
  RecallRow.init(
    {
      learner: { ...text(), primaryKey: true },
      item: named(),
      ease: real(),
      repetitions: number(),
      intervalDays: number(),
      dueAt: moment(),
    },
    { ...plain, tableName: "recalls" },
  );
}
