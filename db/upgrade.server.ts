import { existsSync, mkdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { databaseFile, migrate } from "./databaseFile.server";
import { backUp } from "./keeping/backup.server";
import { flushFile, flushFolder } from "./keeping/flush.server";
import { PlainSqlite } from "./keeping/plainSqlite.server";
import { laterMigrations } from "./laterMigrations";
import { migrations } from "./migrations/index";
import { storageTrouble } from "./storageTrouble";

/** The result of an upgrade: nothing to do, a new database, or an upgraded older one. */
export type Upgrade = "none" | "new" | "upgraded";

/** A database that cannot be upgraded to this version; the message says what to do, and the database is unchanged. */
export class UpgradeRefused extends Error {}

const workFolder = (folder: string): string => join(folder, "upgrading");

/**
 * Upgrades the database of a data folder, completely or not at all. The migrations run on a copy; the copy is verified, and one
 * rename then replaces the old file. The old database is kept as a backup.
 * @param at date of that backup
 * @throws UpgradeRefused where a later Airway made the database, or a migration fails on it
 * @throws the error of the disk or of SQLite; the old file is unchanged
 */
export async function upgrade(folder: string, at: Date): Promise<Upgrade> {
  mkdirSync(folder, { recursive: true });
  const work = workFolder(folder);
  // Left by a start that was killed during an upgrade; the database beside it is the complete old one.
  rmSync(work, { recursive: true, force: true });
  const file = databaseFile(folder);
  const isNew = !existsSync(file);
  if (!isNew && (await pendingIn(file)).length === 0) return "none";
  mkdirSync(work);
  try {
    if (!isNew) {
      await standAlone(file);
      await backUp(at, folder);
      await PlainSqlite.use(file, (own) => own.copyTo(databaseFile(work)));
    }
    await migrate(work).catch(refuse);
    await verified(databaseFile(work));
    flushFile(databaseFile(work));
    for (const beside of ["-wal", "-shm"]) rmSync(`${file}${beside}`, { force: true });
    renameSync(databaseFile(work), file);
    flushFolder(folder);
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
  return isNew ? "new" : "upgraded";
}

/** A migration failed because the disk is full, or because the database is not as its version left it. */
function refuse(thrown: unknown): never {
  if (storageTrouble(thrown)) throw thrown;
  throw new UpgradeRefused(
    `The database could not be upgraded (${(thrown as Error).message}). It is unchanged. Restore the newest backup: docs/reliability.md says how.`,
    { cause: thrown },
  );
}

/** Migrations a database still needs. A file without Airway's list of migrations needs all. */
const pendingIn = (file: string): Promise<string[]> =>
  PlainSqlite.use(file, async (own) => {
    const [table] = await own.all("SELECT name FROM sqlite_master WHERE name = 'SequelizeMeta'");
    const done = table
      ? (await own.all("SELECT name FROM SequelizeMeta")).map(({ name }) => String(name))
      : [];
    const [later] = laterMigrations(done);
    if (later !== undefined)
      throw new UpgradeRefused(
        `The database was made by a later version of Airway (${later}). Update Airway, or set AIRWAY_DATA to another folder.`,
      );
    return migrations.flatMap(({ name }) => (done.includes(name) ? [] : [name]));
  });

/** Merges a database's write-ahead log into its file. */
const standAlone = (file: string): Promise<void> =>
  PlainSqlite.use(file, (own) => own.run("PRAGMA journal_mode = DELETE"));

/**
 * Checks an upgraded database and leaves no log beside it.
 * @throws if SQLite finds a fault
 */
const verified = (file: string): Promise<void> =>
  PlainSqlite.use(file, async (own) => {
    await own.run("PRAGMA journal_mode = DELETE");
    const faults = await own.faults();
    if (faults.length > 0) throw new Error(`the upgraded database is not sound: ${faults.join("; ")}`);
  });
