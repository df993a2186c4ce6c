import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { copyFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { databaseFile, migrate } from "../databaseFile.server";
import { migrations } from "../migrations/index";
import { checksumFault } from "./backup.server";
import { PlainSqlite } from "./plainSqlite.server";
import { rowFaults } from "./rowCheck.server";
import { schemaFaults } from "./schemaOf.server";

/** What a database file holds, and what keeps it from taking the place of the shop's. */
export interface CandidateFinding {
  /** Empty where it could take the shop's place. */
  readonly faults: readonly string[];
  readonly jobs: number;
  readonly readings: number;
  readonly newest: string | null;
}

const nothing = { jobs: 0, readings: 0, newest: null };
const mostFaults = 12;

/**
 * Copies a database file into a folder, brings the copy up to date, and verifies all of it: SQLite's own checks, the same
 * tables, indexes and triggers as this Airway makes and no others, and every row through its schema.
 * @returns what was found; without faults the copy in the folder can take the shop's place
 */
export async function prepareCandidate(file: string, folder: string): Promise<CandidateFinding> {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const changed = await checksumFault(file);
  if (changed) return { faults: [changed], ...nothing };
  await copyFile(file, databaseFile(folder));
  try {
    const early = await withDatabase(folder, earlyFaults);
    if (early.length > 0) return { faults: early, ...nothing };
    await migrate(folder);
    return await withDatabase(folder, async (own) => {
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
    return { faults: [`this is not a database of Airway: ${(thrown as Error).message}`], ...nothing };
  }
}

/** What keeps a file from being brought up to date at all. */
async function earlyFaults(own: PlainSqlite): Promise<string[]> {
  const faults = await own.faults();
  if (faults.length > 0) return faults;
  const known = new Set(migrations.map(({ name }) => name));
  return (await own.all("SELECT name FROM SequelizeMeta"))
    .map(({ name }) => String(name))
    .filter((name) => !known.has(name))
    .map((name) => `it was made by a later version of Airway (${name}): update Airway first`);
}

async function withDatabase<T>(folder: string, work: (own: PlainSqlite) => Promise<T>): Promise<T> {
  const own = await PlainSqlite.open(databaseFile(folder));
  try {
    return await work(own);
  } finally {
    await own.close();
  }
}

/** Looks into a database file without changing anything: a restore tried in a folder of its own, which goes again. */
export async function lookInto(file: string): Promise<CandidateFinding> {
  const folder = mkdtempSync(join(tmpdir(), "airway-look-"));
  try {
    return await prepareCandidate(file, join(folder, "copy"));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
