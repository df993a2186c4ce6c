import { DataTypes, type QueryInterface } from "sequelize";
import { maybeMoment, maybeText, moment, named, number, text } from "../columns";

const job = () => ({ ...number(), references: { model: "jobs", key: "id" }, onDelete: "RESTRICT" });

/** Access plans and what was learned about them, parts compared, screws counted, estimates, and the shop's rates. */
export const fit = {
  name: "008-fit",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.createTable("plans", { shelfId: named(), position: number(), taken: text() });
    await context.createTable("planBodies", {
      id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
      shelfId: text(),
      number: number(),
      body: text(),
      takenAt: moment(),
    });
    await context.addIndex("planBodies", ["shelfId", "number"], { unique: true });
    await context.createTable("planNotes", {
      id: named(),
      shelfId: text(),
      step: text(),
      words: text(),
      takenAt: moment(),
      struckAt: maybeMoment(),
    });
    await context.addIndex("planNotes", ["shelfId"]);
    await context.createTable("fits", {
      jobId: { ...job(), primaryKey: true },
      targets: text(),
      prefer: text(),
    });
    await context.createTable("fitTicks", {
      id: named(),
      jobId: job(),
      shelfId: text(),
      step: text(),
      way: text(),
      screws: number(),
      minutes: { type: DataTypes.FLOAT, allowNull: true },
      takenAt: moment(),
      struckAt: maybeMoment(),
    });
    await context.addIndex("fitTicks", ["jobId"]);
    await context.addIndex("fitTicks", ["shelfId"]);
    await context.createTable("parts", { number: named(), body: text() });
    await context.createTable("matches", {
      id: named(),
      jobId: job(),
      part: text(),
      oldNumber: maybeText(),
      newNumber: maybeText(),
      overrides: text(),
    });
    await context.addIndex("matches", ["jobId", "part"], { unique: true });
    await context.createTable("estimates", {
      id: named(),
      jobId: job(),
      number: number(),
      kind: text(),
      body: text(),
      madeAt: moment(),
      approvedAt: maybeMoment(),
      approvedBy: maybeText(),
    });
    await context.addIndex("estimates", ["jobId", "number"], { unique: true });
    await context.createTable("settings", { name: named(), body: text() });
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    for (const table of [
      "settings",
      "estimates",
      "matches",
      "parts",
      "fitTicks",
      "fits",
      "planNotes",
      "planBodies",
      "plans",
    ])
      await context.dropTable(table);
  },
};
