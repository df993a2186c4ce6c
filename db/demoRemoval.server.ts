import { join } from "node:path";
import { plainNumber } from "@core/match/supersession";
import { QueryTypes, type Transaction } from "sequelize";
import { z } from "zod";
import { type Database, database } from "./database.server";
import { demoJobToken, demoPastToken } from "./demoJobs";
import { demoContents, loadDemoWorld } from "./demoWorld.server";
import { backUp } from "./keeping/backup.server";
import { insertDemoState } from "./repositories/settings.server";

/** Where the demo's files are; the scripts that start Airway set the root. */
const demoFolder = (): string => join(process.env.AIRWAY_ROOT ?? process.cwd(), "demo");

/** The demo's jobs, by the tokens they were made with. */
const demoJobs = "SELECT id FROM jobs WHERE formToken IN (:tokens)";

const named = z.array(z.object({ name: z.string() }));
const keys = z.array(z.object({ table: z.string(), from: z.string(), to: z.string() }));
const kept = z.array(z.object({ name: z.string(), sql: z.string() }));

/** Every reference between two tables: the child's column, and the column it refers to. */
async function references({ sequelize }: Database, transaction: Transaction) {
  const select = { type: QueryTypes.SELECT, transaction } as const;
  const tables = named.parse(
    await sequelize.query("SELECT name FROM sqlite_master WHERE type = 'table'", select),
  );
  const found: { child: string; column: string; parent: string; key: string }[] = [];
  for (const { name } of tables) {
    const own = keys.parse(await sequelize.query(`PRAGMA foreign_key_list(${name})`, select));
    for (const { table, from, to } of own)
      if (table !== name) found.push({ child: name, column: from, parent: table, key: to });
  }
  return found;
}

/** Loads the demo workshop on request. @returns false, without loading, if the shelf holds a circuit */
export const bringDemo = async (now: Date): Promise<boolean> =>
  loadDemoWorld(await database(), demoFolder(), now, true);

/**
 * Removes the demo workshop: its jobs with everything entered on them, and its vehicles, circuits, access steps and
 * parts as far as no other job and no practice case needs them. A backup is made first.
 */
export async function removeDemo(now: Date): Promise<void> {
  await backUp(now);
  const store = await database();
  const { sequelize } = store;
  const { world, circuits, parts, past } = demoContents(demoFolder());
  const tokens = [
    ...world.jobs.map((_, place) => demoJobToken(place)),
    ...past.map((_, place) => demoPastToken(place)),
  ];
  await store.write(async (transaction) => {
    const links = await references(store, transaction);
    const run = (sql: string, replacements = {}) =>
      sequelize.query(sql, { transaction, replacements: { ...replacements, tokens } });
    /** Deletes rows, after deleting the rows in other tables that reference them. */
    const remove = async (table: string, condition: string): Promise<void> => {
      for (const { child, column, key } of links.filter(({ parent }) => parent === table))
        await remove(child, `${column} IN (SELECT ${key} FROM ${table} WHERE ${condition})`);
      await run(`DELETE FROM ${table} WHERE ${condition}`);
    };
    // A removed demo leaves no history, so the triggers that protect the audit trail are dropped during the removal.
    const seals = kept.parse(
      await sequelize.query(
        "SELECT name, sql FROM sqlite_master WHERE type = 'trigger' AND tbl_name IN ('events', 'eventPeople')",
        {
          type: QueryTypes.SELECT,
          transaction,
        },
      ),
    );
    for (const { name } of seals) await run(`DROP TRIGGER ${name}`);
    await run("INSERT INTO importing DEFAULT VALUES");
    await run(
      `UPDATE jobs SET comebackOf = NULL WHERE comebackOf IN (${demoJobs}) AND id NOT IN (${demoJobs})`,
    );
    await run(`DELETE FROM jobSearch WHERE rowid IN (${demoJobs})`);
    await run(
      `DELETE FROM eventPeople WHERE eventId IN (SELECT id FROM events WHERE jobId IN (${demoJobs}))`,
    );
    await run(`DELETE FROM events WHERE jobId IN (${demoJobs})`);
    await remove("jobs", `id IN (${demoJobs})`);
    await run("DELETE FROM importing");
    for (const { sql } of seals) await run(sql);

    for (const { label, model } of world.vehicles)
      await run(
        `DELETE FROM vehicles WHERE label = :label AND model = :model
         AND id NOT IN (SELECT vehicleId FROM jobs)`,
        { label, model },
      );
    const shelfIds = circuits.map(({ id }) => id);
    await run(
      `DELETE FROM circuits WHERE shelfId IN (:shelfIds) AND id NOT IN (SELECT circuitId FROM vehicles)
       AND id NOT IN (SELECT circuitId FROM jobs) AND id NOT IN (SELECT circuitId FROM practiceCases)`,
      { shelfIds },
    );
    const gone = "shelfId IN (:shelfIds) AND shelfId NOT IN (SELECT shelfId FROM circuits)";
    for (const table of ["planBodies", "plans", "planNotes", "circuitNotes"])
      await run(`DELETE FROM ${table} WHERE ${gone}`, { shelfIds });
    await run(
      "DELETE FROM parts WHERE number IN (:numbers) AND number NOT IN (SELECT newNumber FROM matches WHERE newNumber IS NOT NULL)",
      {
        numbers: parts.map(({ number }) => plainNumber(number)),
      },
    );
    await run("DELETE FROM settings WHERE name = 'shop-name' AND body = :shop", { shop: world.shop });
    await insertDemoState("removed", transaction);
  });
}
