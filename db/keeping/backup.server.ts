import { mkdirSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import { copyFile } from "node:fs/promises";
import { join } from "node:path";
import { databaseFile, dataFolder, replaceDatabase } from "../database.server";
import { migrations } from "../migrations/index";
import { PlainSqlite } from "./plainSqlite.server";
import { backupsToDrop } from "./rotation";

/** A backup in the data folder. */
export interface Backup {
  readonly name: string;
  readonly at: Date;
  readonly bytes: number;
}

const backupFolder = (): string => join(dataFolder(), "backups");
const named = /^airway-(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})-(\d{3})Z\.sqlite$/;

const nameOf = (at: Date): string => `airway-${at.toISOString().replaceAll(/[:.]/g, "-")}.sqlite`;

function momentOf(name: string): Date | null {
  const match = named.exec(name);
  return match ? new Date(`${match[1]}T${match[2]}:${match[3]}:${match[4]}.${match[5]}Z`) : null;
}

/** The backups there are, the newest first. */
export function listBackups(): Backup[] {
  mkdirSync(backupFolder(), { recursive: true });
  return readdirSync(backupFolder())
    .flatMap((name) => {
      const at = momentOf(name);
      return at ? [{ name, at, bytes: statSync(join(backupFolder(), name)).size }] : [];
    })
    .sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** A backup's file; null where there is none of that name. */
export function backupFile(name: string): string | null {
  return listBackups().some((own) => own.name === name) ? join(backupFolder(), name) : null;
}

/** Copies the database while it works, proves the copy sound, and lets old ones go. */
export async function backUp(at: Date): Promise<Backup> {
  mkdirSync(backupFolder(), { recursive: true });
  const name = nameOf(at);
  const file = join(backupFolder(), name);
  const unproven = `${file}.unproven`;
  const source = await PlainSqlite.open(databaseFile(dataFolder()));
  try {
    await source.copyTo(unproven);
  } finally {
    await source.close();
  }
  const copy = await PlainSqlite.open(unproven);
  try {
    // One file to keep: no log beside it.
    await copy.run("PRAGMA journal_mode = DELETE");
    const faults = await copy.faults();
    if (faults.length > 0) throw new Error(`the copy is not sound: ${faults.join("; ")}`);
  } finally {
    await copy.close();
  }
  renameSync(unproven, file);
  const have = listBackups().map((own) => ({ name: own.name, at: own.at.getTime() }));
  for (const old of backupsToDrop(have, at.getTime())) rmSync(join(backupFolder(), old));
  return { name, at, bytes: statSync(file).size };
}

/** What a backup holds, and whether it could take the place of what is here. */
export interface BackupFinding {
  readonly faults: readonly string[];
  readonly jobs: number;
  readonly readings: number;
  readonly newest: string | null;
}

/** Looks into a database file without changing anything: a restore tried dry. */
export async function lookInto(file: string): Promise<BackupFinding> {
  const own = await PlainSqlite.open(file);
  try {
    const faults = await own.faults();
    const known = new Set(migrations.map(({ name }) => name));
    const done = (await own.all("SELECT name FROM SequelizeMeta")).map(({ name }) => String(name));
    const later = done.filter((name) => !known.has(name));
    const count = async (sql: string): Promise<number> => Number((await own.all(sql))[0]?.n ?? 0);
    const [newest] = await own.all("SELECT MAX(takenAt) AS at FROM readings");
    return {
      faults: [...faults, ...later.map((name) => `it is from a later Airway (${name}): update first`)],
      jobs: await count("SELECT COUNT(*) AS n FROM jobs"),
      readings: await count("SELECT COUNT(*) AS n FROM readings"),
      newest: newest?.at ? String(newest.at) : null,
    };
  } catch (thrown) {
    return {
      faults: [`this is no database of Airway's: ${(thrown as Error).message}`],
      jobs: 0,
      readings: 0,
      newest: null,
    };
  } finally {
    await own.close();
  }
}

/**
 * Puts a database file in the place of the shop's, after a backup of what is here. Refuses one that is not sound.
 * @returns the backup made before
 */
export async function restore(file: string, at: Date): Promise<Backup> {
  const { faults } = await lookInto(file);
  if (faults.length > 0) throw new Error(faults.join("; "));
  // Rotation after the backup may let the very file go that is asked for.
  const folder = dataFolder();
  const incoming = join(folder, "airway.incoming.sqlite");
  try {
    await copyFile(file, incoming);
    const before = await backUp(at);
    await replaceDatabase(() => {
      const own = databaseFile(folder);
      for (const beside of ["-wal", "-shm"]) rmSync(`${own}${beside}`, { force: true });
      renameSync(incoming, own);
      return Promise.resolve();
    });
    return before;
  } finally {
    rmSync(incoming, { force: true });
  }
}

const nightHour = 3;
const longestWithout = 26 * 3600 * 1000;

/** Whether a nightly backup is due: at night by the shop's clock, or when the last is more than a day old. */
export function backupDue(newest: Date | null, now: Date, zone: string): boolean {
  if (!newest) return true;
  const age = now.getTime() - newest.getTime();
  const hour = Number(
    new Intl.DateTimeFormat("en-GB", { hour: "2-digit", hourCycle: "h23", timeZone: zone }).format(now),
  );
  return age > longestWithout || (hour === nightHour && age > 2 * 3600 * 1000);
}
