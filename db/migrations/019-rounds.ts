import type { QueryInterface } from "sequelize";
import { maybeMoment, maybeText, moment, number, text } from "../columns";

/**
 * Photos of a line of work, the round whose parts a repair removes, what a part that was taken out turned out to be,
 * and what the second look at an older closing changed.
 */
export const rounds = {
  name: "019-rounds",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.addColumn("notes", "workId", maybeText());
    await context.addColumn("fittings", "found", maybeText());
    await context.addColumn("fits", "round", { ...number(), defaultValue: 1 });
    await context.createTable("secondLooks", {
      jobId: {
        ...number(),
        primaryKey: true,
        references: { model: "jobs", key: "id" },
        onDelete: "RESTRICT",
      },
      before: text(),
      after: text(),
      lookedAt: moment(),
      undoneAt: maybeMoment(),
    });
    await context.sequelize.query(
      `CREATE TRIGGER auditFound AFTER UPDATE OF found ON fittings
       WHEN NOT EXISTS (SELECT 1 FROM importing) AND old.found IS NOT new.found
       BEGIN INSERT INTO events (jobId, at, what, about)
         VALUES (new.jobId, strftime('%Y-%m-%d %H:%M:%f +00:00', 'now'), 'old-part', json(new.found)); END`,
    );
    await context.sequelize.query(
      `CREATE TRIGGER lookGone AFTER DELETE ON closures
       BEGIN DELETE FROM secondLooks WHERE jobId = old.jobId; END`,
    );
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    for (const trigger of ["lookGone", "auditFound"])
      await context.sequelize.query(`DROP TRIGGER ${trigger}`);
    await context.dropTable("secondLooks");
    await context.removeColumn("fits", "round");
    await context.removeColumn("fittings", "found");
    await context.removeColumn("notes", "workId");
  },
};
