import type { QueryInterface } from "sequelize";
import { maybeMoment, maybeText, moment, named, number, text } from "../columns";

const now = "strftime('%Y-%m-%d %H:%M:%f +00:00', 'now')";
const told = "json_object('kind', new.kind, 'sort', new.sort, 'count', new.count, 'words', new.words";

/** What became of screws, in the audit trail. */
const auditTriggers = [
  ["INSERT", "tray-note", `${told})`, ""],
  [
    "UPDATE OF struckAt",
    "tray-note-struck",
    `${told}, 'at', new.struckAt)`,
    "AND old.struckAt IS NOT new.struckAt",
  ],
].map(
  ([when, what, about, changed], place) =>
    `CREATE TRIGGER auditTray${place} AFTER ${when} ON trayNotes
     WHEN NOT EXISTS (SELECT 1 FROM importing) ${changed}
     BEGIN INSERT INTO events (jobId, at, what, about) VALUES (new.jobId, ${now}, '${what}', ${about}); END`,
);

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
    for (const sql of auditTriggers) await context.sequelize.query(sql);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.dropTable("trayNotes");
    await context.removeColumn("fitTicks", "counts");
    await context.removeColumn("fitTicks", "reason");
  },
};
