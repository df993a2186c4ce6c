import type { QueryInterface } from "sequelize";
import { maybeMoment, maybeText, moment, named, number, real, text } from "../columns";

/** Where a job's parts can be had, and the labour that the book gives for a model's parts. */
export const sources = {
  name: "018-sources",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.createTable("partSources", {
      id: named(),
      jobId: { ...number(), references: { model: "jobs", key: "id" }, onDelete: "RESTRICT" },
      part: text(),
      source: text(),
      number: maybeText(),
      priceMinor: number(),
      arrivesOn: maybeText(),
      chosen: number(),
      takenAt: moment(),
      struckAt: maybeMoment(),
    });
    await context.addIndex("partSources", ["jobId"]);
    await context.createTable("bookTimes", {
      id: named(),
      shelfId: text(),
      part: text(),
      minutes: real(),
      source: text(),
      takenAt: moment(),
    });
    await context.addIndex("bookTimes", ["shelfId", "part"], { unique: true });
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("bookTimes");
    await context.dropTable("partSources");
  },
};
