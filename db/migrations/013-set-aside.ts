import type { QueryInterface } from "sequelize";
import { maybeMoment, moment, named, number, text } from "../columns";

/** What a page sent to a job that no longer takes it, kept for a person to decide. */
export const setAside = {
  name: "013-set-aside",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.createTable("setAside", {
      id: named(),
      jobId: { ...number(), references: { model: "jobs", key: "id" }, onDelete: "RESTRICT" },
      address: text(),
      fields: text(),
      words: text(),
      refusal: text(),
      at: moment(),
      decidedAt: maybeMoment(),
    });
    await context.addIndex("setAside", ["jobId"]);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("setAside");
  },
};
