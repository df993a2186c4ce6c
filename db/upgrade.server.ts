import { existsSync, mkdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { databaseFile, migrate } from "./databaseFile.server";
import { backUp } from "./keeping/backup.server";
import { flushFile, flushFolder } from "./keeping/flush.server";
import { PlainSqlite } from "./keeping/plainSqlite.server";
import { migrations } from "./migrations/index";

/** What a start found: nothing to do, a new database, or an older one brought up to date. */
export type Upgrade = "none" | "new" | "upgraded";

const workFolder = (folder: string): string => join(folder, "upgrading");

/**
 * Brings the database of a data folder up to date, whole or not at all: the migrations run on a copy, the copy is verified,
 * and only then does it take the place of the old file, by one rename. Until then the old file is as it was. The old one is
 * kept among the backups.
 * @param at dates that backup
 * @throws what the disk or SQLite said; the old file is untouched
 */
export async function upgrade(folder: string, at: Date): Promise<Upgrade> {
  mkdirSync(folder, { recursive: true });
  const work = workFolder(folder);
  // A start that was killed while it upgraded left this; the database beside it is the old one, whole.
  rmSync(work, { recursive: true, force: true });
  const file = databaseFile(folder);
  const isNew = !existsSync(file);
  if (!isNew && (await pendingIn(file)).length === 0) return "none";
  mkdirSync(work);
  try {
    if (!isNew) {
      await standAlone(file);
      await backUp(at, folder);
      await copied(file, databaseFile(work));
    }
    await migrate(work);
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

/** Migrations a database has not seen yet; those of a file that is none of ours are all of them. */
async function pendingIn(file: string): Promise<string[]> {
  const own = await PlainSqlite.open(file);
  try {
    const [table] = await own.all("SELECT name FROM sqlite_master WHERE name = 'SequelizeMeta'");
    const done = table ? (await own.all("SELECT name FROM SequelizeMeta")).map(({ name }) => name) : [];
    return migrations.flatMap(({ name }) => (done.includes(name) ? [] : [name]));
  } finally {
    await own.close();
  }
}

/** Brings what lies in a database's log into its one file. */
async function standAlone(file: string): Promise<void> {
  const own = await PlainSqlite.open(file);
  try {
    await own.run("PRAGMA journal_mode = DELETE");
  } finally {
    await own.close();
  }
}

async function copied(file: string, copy: string): Promise<void> {
  const own = await PlainSqlite.open(file);
  try {
    await own.copyTo(copy);
  } finally {
    await own.close();
  }
}

/** Leaves the file alone without a log beside it; throws where SQLite finds something wrong with it. */
async function verified(file: string): Promise<void> {
  const own = await PlainSqlite.open(file);
  try {
    await own.run("PRAGMA journal_mode = DELETE");
    const faults = await own.faults();
    if (faults.length > 0) throw new Error(`the upgraded database is not sound: ${faults.join("; ")}`);
  } finally {
    await own.close();
  }
}
