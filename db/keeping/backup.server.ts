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
import { basename, join } from "node:path";
import { databaseFile, dataFolder } from "../databaseFile.server";
import { flushFile } from "./flush.server";
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
      return at ? [{ name, at, bytes: statSync(join(backups, name)).size }] : [];
    })
    .sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** A backup's file; null where there is none of that name. */
export function backupFile(name: string): string | null {
  return listBackups().some((own) => own.name === name) ? join(backupFolder(dataFolder()), name) : null;
}

const checksumFile = (file: string): string => `${file}.sha256`;

/** A file's SHA-256. */
async function checksumOf(file: string): Promise<string> {
  const hash = createHash("sha256");
  for await (const piece of createReadStream(file)) hash.update(piece as Buffer);
  return hash.digest("hex");
}

/** Whether a backup is, byte for byte, what was written: null, or what is wrong. One without a checksum is taken as it is. */
export async function checksumFault(file: string): Promise<string | null> {
  if (!existsSync(checksumFile(file))) return null;
  const written = readFileSync(checksumFile(file), "utf8").trim();
  return (await checksumOf(file)) === written
    ? null
    : "its checksum does not match: the file was changed or damaged";
}

/** Lets the backups of a folder go that are kept no longer. */
function dropOld(backups: string, now: Date): void {
  const have = backupsIn(backups).map(({ name, at }) => ({ name, at: at.getTime() }));
  for (const old of backupsToDrop(have, now.getTime())) {
    rmSync(join(backups, old));
    rmSync(checksumFile(join(backups, old)), { force: true });
  }
}

/** A second folder for backups, on another disk or share; null where none is set. */
const secondFolder = (): string | null => process.env.AIRWAY_BACKUP_FOLDER ?? null;

/** Copies a backup into the second folder and checks the copy. @throws where that fails, in words */
async function copyElsewhere(file: string, checksum: string, at: Date): Promise<void> {
  const folder = secondFolder();
  if (!folder) return;
  const copy = join(folder, basename(file));
  try {
    mkdirSync(folder, { recursive: true });
    await copyFile(file, `${copy}.unproven`);
    flushFile(`${copy}.unproven`);
    if ((await checksumOf(`${copy}.unproven`)) !== checksum) throw new Error("the copy differs");
    writeFileSync(checksumFile(copy), `${checksum}\n`);
    renameSync(`${copy}.unproven`, copy);
    dropOld(folder, at);
  } catch (thrown) {
    throw new Error(
      `The backup was made, but it could not be copied to ${folder}: ${(thrown as Error).message}`,
      { cause: thrown },
    );
  }
}

/** Copies the database while it works, proves the copy sound, notes its checksum, and lets old ones go. */
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
  flushFile(unproven);
  const checksum = await checksumOf(unproven);
  writeFileSync(checksumFile(file), `${checksum}\n`);
  renameSync(unproven, file);
  dropOld(backups, at);
  await copyElsewhere(file, checksum, at);
  return { name, at, bytes: statSync(file).size };
}

const nightHour = 3;
const longestWithout = 26 * 3600 * 1000;

/** The newest backup that was made by now. One dated later, by a clock that was wrong, proves nothing. */
export const newestBackup = (now: Date): Backup | null => listBackups().find(({ at }) => at <= now) ?? null;

/** Whether a nightly backup is due: at night by the shop's clock, or when the last is more than a day old. */
export function backupDue(newest: Date | null, now: Date, zone: string): boolean {
  if (!newest || newest > now) return true;
  const age = now.getTime() - newest.getTime();
  const hour = Number(
    new Intl.DateTimeFormat("en-GB", { hour: "2-digit", hourCycle: "h23", timeZone: zone }).format(now),
  );
  return age > longestWithout || (hour === nightHour && age > 2 * 3600 * 1000);
}

const tooLongWithout = 48 * 3600 * 1000;

/** What the board says where the newest backup is older than two days; null where it is not. */
export function backupWarning(newest: Date | null, now: Date): string | null {
  if (newest && now.getTime() - newest.getTime() <= tooLongWithout) return null;
  return newest
    ? `The newest backup is ${Math.floor((now.getTime() - newest.getTime()) / (24 * 3600 * 1000))} days old.`
    : "There is no backup yet.";
}
