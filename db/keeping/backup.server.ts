import { mkdirSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import { databaseFile, dataFolder } from "../databaseFile.server";
import { PlainSqlite } from "./plainSqlite.server";
import { backupsToDrop } from "./rotation";

/** A backup in the data folder. */
export interface Backup {
  readonly name: string;
  readonly at: Date;
  readonly bytes: number;
}

const backupFolder = (folder: string): string => join(folder, "backups");
const named = /^airway-(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})-(\d{3})Z\.sqlite$/;

const nameOf = (at: Date): string => `airway-${at.toISOString().replaceAll(/[:.]/g, "-")}.sqlite`;

function momentOf(name: string): Date | null {
  const match = named.exec(name);
  return match ? new Date(`${match[1]}T${match[2]}:${match[3]}:${match[4]}.${match[5]}Z`) : null;
}

/** The backups there are, the newest first. */
export function listBackups(folder = dataFolder()): Backup[] {
  const backups = backupFolder(folder);
  mkdirSync(backups, { recursive: true });
  return readdirSync(backups)
    .flatMap((name) => {
      const at = momentOf(name);
      return at ? [{ name, at, bytes: statSync(join(backups, name)).size }] : [];
    })
    .sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** A backup's file; null where there is none of that name. */
export function backupFile(name: string): string | null {
  return listBackups().some((own) => own.name === name) ? join(backupFolder(dataFolder()), name) : null;
}

/** Copies the database while it works, proves the copy sound, and lets old ones go. */
export async function backUp(at: Date, folder = dataFolder()): Promise<Backup> {
  const backups = backupFolder(folder);
  mkdirSync(backups, { recursive: true });
  const name = nameOf(at);
  const file = join(backups, name);
  const unproven = `${file}.unproven`;
  const source = await PlainSqlite.open(databaseFile(folder));
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
  const have = listBackups(folder).map((own) => ({ name: own.name, at: own.at.getTime() }));
  for (const old of backupsToDrop(have, at.getTime())) rmSync(join(backups, old));
  return { name, at, bytes: statSync(file).size };
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
