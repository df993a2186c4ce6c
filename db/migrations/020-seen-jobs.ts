import type { QueryInterface } from "sequelize";
import { counted, maybeMoment, maybeNumber, moment, named, number, text } from "../columns";

/** Jobs on vehicles whose diagram nobody has, and their readings by place. */
export const seenJobs = {
  name: "020-seen-jobs",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.createTable("seenJobs", {
      id: counted(),
      formToken: { ...text(), unique: true },
      label: text(),
      words: text(),
      seen: text(),
      outOfReach: { ...text(), defaultValue: "[]" },
      cautionsRead: { ...text(), defaultValue: "[]" },
      jobId: { ...maybeNumber(), references: { model: "jobs", key: "id" }, onDelete: "SET NULL" },
      deletedAt: maybeMoment(),
      createdAt: moment(),
    });
    await context.createTable("seenReadings", {
      id: named(),
      seenJobId: { ...number(), references: { model: "seenJobs", key: "id" }, onDelete: "RESTRICT" },
      number: number(),
      body: text(),
      takenAt: moment(),
      struckAt: maybeMoment(),
    });
    await context.addIndex("seenReadings", ["seenJobId"]);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("seenReadings");
    await context.dropTable("seenJobs");
  },
};
