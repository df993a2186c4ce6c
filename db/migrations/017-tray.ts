import type { QueryInterface } from "sequelize";
import { maybeMoment, maybeText, moment, named, number, text } from "../columns";

/**
 * The reason for ticking a step before another, the fasteners of a tick by sort, and what became of screws that no
 * tick explains: lost, found, taken new, or left over.
 */
export const tray = {
  name: "017-tray",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.addColumn("fitTicks", "reason", maybeText());
    await context.addColumn("fitTicks", "counts", maybeText());
    await context.createTable("trayNotes", {
      id: named(),
      jobId: { ...number(), references: { model: "jobs", key: "id" }, onDelete: "RESTRICT" },
      kind: text(),
      sort: text(),
      count: number(),
      words: text(),
      takenAt: moment(),
      struckAt: maybeMoment(),
    });
    await context.addIndex("trayNotes", ["jobId"]);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("trayNotes");
    await context.removeColumn("fitTicks", "counts");
    await context.removeColumn("fitTicks", "reason");
  },
};
