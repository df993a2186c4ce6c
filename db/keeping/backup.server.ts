import { createHash } from "node:crypto";
import {
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { copyFile } from "node:fs/promises";
import { join } from "node:path";
import { databaseFile } from "../databaseFile.server";
import { dataFolder } from "../dataFolder.server";
import { flushFile } from "./flush.server";
import { PlainSqlite } from "./plainSqlite.server";
import { backupsToDrop } from "./rotation";

/** A backup in the data folder. */
export interface Backup {
  readonly name: string;
  readonly at: Date;
  readonly bytes: number;
  /** Whether it was restored into a temporary file and every row was read. */
  readonly isVerified: boolean;
}

const backupFolder = (folder: string): string => join(folder, "backups");
const named = /^airway-(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})-(\d{3})Z\.sqlite$/;

const nameOf = (at: Date): string => `airway-${at.toISOString().replaceAll(/[:.]/g, "-")}.sqlite`;

function momentOf(name: string): Date | null {
  const match = named.exec(name);
  return match ? new Date(`${match[1]}T${match[2]}:${match[3]}:${match[4]}.${match[5]}Z`) : null;
}

/** The backups of a data folder, the newest first. */
export function listBackups(folder = dataFolder()): Backup[] {
  const backups = backupFolder(folder);
  mkdirSync(backups, { recursive: true });
  return backupsIn(backups);
}

function backupsIn(backups: string): Backup[] {
  return readdirSync(backups)
    .flatMap((name) => {
      const at = momentOf(name);
      const file = join(backups, name);
      return at ? [{ name, at, bytes: statSync(file).size, isVerified: existsSync(verifiedMark(file)) }] : [];
    })
    .sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** A backup's file; null if there is none of that name. */
export function backupFile(name: string): string | null {
  return listBackups().some((own) => own.name === name) ? join(backupFolder(dataFolder()), name) : null;
}

const verifiedMark = (file: string): string => `${file}.verified`;

/** Records that a backup was restored into a temporary file and read completely. */
export function markVerified(name: string): void {
  const file = backupFile(name);
  if (file) writeFileSync(verifiedMark(file), "");
}

const checksumFile = (file: string): string => `${file}.sha256`;

/** A file's SHA-256. */
async function checksumOf(file: string): Promise<string> {
  const hash = createHash("sha256");
  for await (const piece of createReadStream(file)) hash.update(piece as Buffer);
  return hash.digest("hex");
}

/** What is wrong with a backup by its checksum; null if it matches, or if the backup has no checksum. */
export async function checksumFault(file: string): Promise<string | null> {
  if (!existsSync(checksumFile(file))) return null;
  const written = readFileSync(checksumFile(file), "utf8").trim();
  return (await checksumOf(file)) === written
    ? null
    : "its checksum does not match; the file was changed or damaged";
}

/** Deletes the backups of a folder that are no longer kept. */
function dropOld(backups: string, now: Date): void {
  const have = backupsIn(backups).map(({ name, at }) => ({ name, at: at.getTime() }));
  for (const old of backupsToDrop(have, now.getTime())) {
    rmSync(join(backups, old));
    for (const beside of [checksumFile, verifiedMark]) rmSync(beside(join(backups, old)), { force: true });
  }
}

/**
 * Copies a backup into the second folder, AIRWAY_BACKUP_FOLDER, and checks the copy; does nothing if none is set.
 * @throws if the copy fails, in words
 */
export async function copyToSecondFolder({ name, at }: Backup): Promise<void> {
  const folder = process.env.AIRWAY_BACKUP_FOLDER;
  const file = backupFile(name);
  if (!folder || !file) return;
  const copy = join(folder, name);
  const unproven = `${copy}.unproven`;
  try {
    mkdirSync(folder, { recursive: true });
    await copyFile(file, unproven);
    flushFile(unproven);
    const checksum = await checksumOf(unproven);
    if (checksum !== (await checksumOf(file))) throw new Error("the copy differs from the backup");
    writeFileSync(checksumFile(copy), `${checksum}\n`);
    renameSync(unproven, copy);
    dropOld(folder, at);
  } catch (thrown) {
    throw new Error(`The backup could not be copied to ${folder}: ${(thrown as Error).message}`, {
      cause: thrown,
    });
  }
}

/**
 * Copies the database while it is in use, checks the copy, stores its checksum, and deletes backups that are too old.
 */
export async function backUp(at: Date, folder = dataFolder()): Promise<Backup> {
  const backups = backupFolder(folder);
  mkdirSync(backups, { recursive: true });
  const name = nameOf(at);
  const file = join(backups, name);
  const unproven = `${file}.unproven`;
  await PlainSqlite.use(databaseFile(folder), (source) => source.copyTo(unproven));
  await PlainSqlite.use(unproven, async (copy) => {
    // One file to keep, without a log beside it.
    await copy.run("PRAGMA journal_mode = DELETE");
    const faults = await copy.faults();
    if (faults.length > 0) throw new Error(`the copy is damaged: ${faults.join("; ")}`);
  });
  flushFile(unproven);
  writeFileSync(checksumFile(file), `${await checksumOf(unproven)}\n`);
  renameSync(unproven, file);
  dropOld(backups, at);
  return { name, at, bytes: statSync(file).size, isVerified: false };
}

const nightHour = 3;
const longestWithout = 26 * 3600 * 1000;

/** Backups that are not dated in the future, the newest first; a wrong clock made the others. */
const pastBackups = (now: Date): Backup[] => listBackups().filter(({ at }) => at <= now);

export const newestBackup = (now: Date): Backup | null => pastBackups(now)[0] ?? null;

/** The newest backup that is verified. */
export const newestVerified = (now: Date): Backup | null =>
  pastBackups(now).find(({ isVerified }) => isVerified) ?? null;

/** Whether a nightly backup is due: at night by the shop's clock, or if the last is more than a day old. */
export function backupDue(newest: Date | null, now: Date, zone: string): boolean {
  if (!newest || newest > now) return true;
  const age = now.getTime() - newest.getTime();
  const hour = Number(
    new Intl.DateTimeFormat("en-GB", { hour: "2-digit", hourCycle: "h23", timeZone: zone }).format(now),
  );
  return age > longestWithout || (hour === nightHour && age > 2 * 3600 * 1000);
}

const tooLongWithout = 48 * 3600 * 1000;

/** The warning for the board if the newest verified backup is more than two days old; null otherwise. */
export function backupWarning(newest: Date | null, now: Date): string | null {
  if (newest && now.getTime() - newest.getTime() <= tooLongWithout) return null;
  return newest
    ? `The newest verified backup is ${Math.floor((now.getTime() - newest.getTime()) / (24 * 3600 * 1000))} days old.`
    : "There is no verified backup yet.";
}
