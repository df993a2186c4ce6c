import type { QueryInterface } from "sequelize";
import { maybeMoment, moment, named, number, real, text } from "../columns";

/** Learners, the cases of the practice bay and their actions, answers to lessons and when they are due again. */
export const practice = {
  name: "010-practice",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.createTable("learners", { label: named(), createdAt: moment() });
    await context.createTable("practiceCases", {
      id: named(),
      learner: { ...text(), references: { model: "learners", key: "label" }, onDelete: "RESTRICT" },
      circuitId: { ...text(), references: { model: "circuits", key: "id" }, onDelete: "RESTRICT" },
      title: text(),
      level: text(),
      hidden: text(),
      costs: text(),
      startedAt: moment(),
      endedAt: maybeMoment(),
    });
    await context.addIndex("practiceCases", ["learner", "startedAt"]);
    await context.createTable("practiceActs", {
      id: named(),
      caseId: { ...text(), references: { model: "practiceCases", key: "id" }, onDelete: "RESTRICT" },
      position: number(),
      body: text(),
      takenAt: moment(),
    });
    await context.addIndex("practiceActs", ["caseId", "position"], { unique: true });
    await context.createTable("practiceAnswers", {
      id: named(),
      learner: { ...text(), references: { model: "learners", key: "label" }, onDelete: "RESTRICT" },
      item: text(),
      seed: number(),
      right: number(),
      seconds: real(),
      answeredAt: moment(),
    });
    await context.addIndex("practiceAnswers", ["learner", "answeredAt"]);
    await context.createTable("recalls", {
      learner: { ...text(), primaryKey: true, references: { model: "learners", key: "label" } },
      item: named(),
      ease: real(),
      repetitions: number(),
      intervalDays: number(),
      dueAt: moment(),
    });
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    for (const table of ["recalls", "practiceAnswers", "practiceActs", "practiceCases", "learners"])
      await context.dropTable(table);
  },
};
