import type { QueryInterface } from "sequelize";
import { maybeMoment, maybeText, number } from "../columns";

const followUp = "json_extract(body, '$.followUpOn')";

const now = "strftime('%Y-%m-%d %H:%M:%f +00:00', 'now')";

/** Changes of a job that the audit trail keeps, with the columns they change. */
const noted = { partsInAt: "parts-in", promised: "promised" } as const;

const auditTriggers = Object.entries(noted).map(
  ([column, what]) =>
    `CREATE TRIGGER audit_${column} AFTER UPDATE OF ${column} ON jobs
     WHEN NOT EXISTS (SELECT 1 FROM importing) AND old.${column} IS NOT new.${column}
     BEGIN INSERT INTO events (jobId, at, what, about)
       VALUES (new.id, ${now}, '${what}', json_object('to', new.${column})); END`,
);

/**
 * What the board groups by: when a vehicle is promised, when its parts arrived, whether its verdict is reached, and
 * the follow-ups still to be made. The stored lines are discarded and worked out again.
 */
export const board = {
  name: "015-board",
  up: async ({ context }: { context: QueryInterface }): Promise<void> => {
    await context.addColumn("jobs", "promised", maybeText());
    await context.addColumn("jobs", "partsInAt", maybeMoment());
    await context.bulkDelete("jobLines", {});
    await context.addColumn("jobLines", "decided", { ...number(), defaultValue: 0 });
    await context.addColumn("closures", "followedUpAt", maybeMoment());
    await context.sequelize.query(
      `CREATE INDEX closuresToFollowUp ON closures (${followUp}) WHERE ${followUp} IS NOT NULL`,
    );
    for (const sql of auditTriggers) await context.sequelize.query(sql);
    // A shop of an earlier version may hold the demo workshop.
    await context.sequelize.query(
      `INSERT OR IGNORE INTO settings (name, body)
       SELECT 'demo', 'loaded' WHERE EXISTS (SELECT 1 FROM jobs WHERE formToken = 'demo-0')`,
    );
  },
  down: async ({ context }: { context: QueryInterface }): Promise<void> => {
    for (const column of Object.keys(noted)) await context.sequelize.query(`DROP TRIGGER audit_${column}`);
    await context.sequelize.query("DROP INDEX closuresToFollowUp");
    // Sequelize would copy these tables to remove a column, and their triggers would be lost.
    for (const column of ["closures.followedUpAt", "jobLines.decided", "jobs.partsInAt", "jobs.promised"])
      await context.sequelize.query(`ALTER TABLE ${column.replace(".", " DROP COLUMN ")}`);
  },
};
