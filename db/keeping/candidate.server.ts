import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { copyFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { z } from "zod";
import { databaseFile, migrate } from "../databaseFile.server";
import { laterMigrations } from "../laterMigrations";
import { checksumFault } from "./backup.server";
import { PlainSqlite } from "./plainSqlite.server";
import { rowFaults } from "./rowCheck.server";
import { schemaFaults } from "./schemaOf.server";

/** What a database file contains, and why it cannot replace the shop's database: no faults if it can. */
export const candidateFindingSchema = z.object({
  faults: z.array(z.string()),
  jobs: z.number(),
  readings: z.number(),
  newest: z.string().nullable(),
});
export type CandidateFinding = z.infer<typeof candidateFindingSchema>;

const nothing = { jobs: 0, readings: 0, newest: null };
const mostFaults = 12;

/**
 * Copies a database file into a folder, upgrades the copy and verifies it completely: SQLite's own checks, exactly the tables,
 * indexes and triggers that this version makes, and every row against its schema.
 * @returns what was found; if there are no faults, the copy in the folder can replace the shop's database
 */
export async function prepareCandidate(file: string, folder: string): Promise<CandidateFinding> {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const changed = await checksumFault(file);
  if (changed) return { faults: [changed], ...nothing };
  await copyFile(file, databaseFile(folder));
  try {
    const early = await PlainSqlite.use(databaseFile(folder), earlyFaults);
    if (early.length > 0) return { faults: early, ...nothing };
    await migrate(folder);
    return await PlainSqlite.use(databaseFile(folder), async (own) => {
      await own.run("PRAGMA journal_mode = DELETE");
      const found = [...(await own.faults()), ...(await schemaFaults(own))];
      const faults = found.length > 0 ? found : await rowFaults(own, mostFaults);
      if (faults.length > 0) return { faults: faults.slice(0, mostFaults), ...nothing };
      const count = async (table: string): Promise<number> =>
        Number((await own.all(`SELECT COUNT(*) AS n FROM ${table}`))[0]?.n ?? 0);
      const [newest] = await own.all("SELECT MAX(takenAt) AS at FROM readings");
      return {
        faults: [],
        jobs: await count("jobs"),
        readings: await count("readings"),
        newest: newest?.at ? String(newest.at) : null,
      };
    });
  } catch (thrown) {
    return { faults: [`this is not an Airway database: ${(thrown as Error).message}`], ...nothing };
  }
}

/** Faults because of which a file cannot be upgraded at all. */
async function earlyFaults(own: PlainSqlite): Promise<string[]> {
  const faults = await own.faults();
  if (faults.length > 0) return faults;
  const names = (await own.all("SELECT name FROM SequelizeMeta")).map(({ name }) => String(name));
  return laterMigrations(names).map(
    (name) => `it was made by a later version of Airway (${name}); update Airway first`,
  );
}

/** Checks a database file as a restore would, in a temporary folder; nothing of the shop changes. */
export async function lookInto(file: string): Promise<CandidateFinding> {
  const folder = mkdtempSync(join(tmpdir(), "airway-look-"));
  try {
    return await prepareCandidate(file, join(folder, "copy"));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
