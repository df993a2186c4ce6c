import type { QueryInterface } from "sequelize";
import { maybeNumber, maybeText, number } from "../columns";

const now = "strftime('%Y-%m-%d %H:%M:%f +00:00', 'now')";

/** What counts as a change of a job without a diagram: the table, the event, and which job it is. */
const changes = [
  ["seenJobs", "UPDATE OF label, words, seen, outOfReach, cautionsRead, jobId, deletedAt", "id"],
  ["seenReadings", "INSERT", "seenJobId"],
  ["seenReadings", "UPDATE OF struckAt", "seenJobId"],
].map(
  ([table, when, job], place) => `CREATE TRIGGER seenChange${place} AFTER ${when} ON ${table}
     BEGIN UPDATE seenJobs SET changes = changes + 1 WHERE id = new.${job}; END`,
);

/**
 * Jobs without a diagram count their changes, so that every page that shows one can be told. An entry that was set aside
 * keeps the name of whoever sent it, and the trail says who decided it.
 */
export const shared = {
  name: "022-shared",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.addColumn("seenJobs", "changes", { ...number(), defaultValue: 0 });
    await context.addColumn("setAside", "who", maybeText());
    await context.addColumn("setAside", "stored", maybeNumber());
    for (const sql of [
      ...changes,
      `CREATE TRIGGER auditAside AFTER UPDATE OF decidedAt ON setAside
         WHEN NOT EXISTS (SELECT 1 FROM importing) AND new.decidedAt IS NOT NULL
         BEGIN INSERT INTO events (jobId, at, what, about)
           VALUES (new.jobId, ${now}, 'aside', json_object('words', new.words, 'who', new.who, 'stored', new.stored)); END`,
    ])
      await context.sequelize.query(sql);
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    for (const trigger of ["auditAside", "seenChange0", "seenChange1", "seenChange2"])
      await context.sequelize.query(`DROP TRIGGER ${trigger}`);
    for (const [table, column] of [
      ["setAside", "stored"],
      ["setAside", "who"],
      ["seenJobs", "changes"],
    ])
      await context.sequelize.query(`ALTER TABLE ${table} DROP COLUMN ${column}`);
  },
};
