import type { QueryInterface } from "sequelize";
import { maybeMoment, moment, named, number, text } from "../columns";

/** Entries that a job no longer takes, kept for a person to decide. */
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
