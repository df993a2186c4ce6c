import { copyFileSync, mkdirSync, mkdtempSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { openDatabase, replaceDatabase } from "../database.server";
import { databaseFile } from "../databaseFile.server";
import { dataFolder } from "../dataFolder.server";
import { behindShutDoor } from "../turnstile.server";
import { type Backup, backUp, backupFile } from "./backup.server";
import { prepareCandidate } from "./candidate.server";
import { flushFile, flushFolder } from "./flush.server";

/** Where candidates are prepared: on the same disk as the database, so that one rename replaces it. */
const workFolder = (folder: string): string => join(folder, "restoring");

/** Deletes what a killed restore left behind. Only call it while no restore is running. */
export const dropUnfinishedRestores = (folder: string): void =>
  rmSync(workFolder(folder), { recursive: true, force: true });

/** A database file that cannot replace the shop's database. */
export class RestoreRefused extends Error {
  constructor(readonly faults: readonly string[]) {
    super(faults.join("; "));
  }
}

/**
 * Replaces the shop's database with a database file. The file is verified and upgraded in a copy first. Then writes stop, the
 * shop's database is backed up with everything that was acknowledged, and one rename puts the copy in its place. If the copy
 * cannot be opened, the backup is put back.
 * @returns the backup of what was here before
 * @throws RestoreRefused if the file cannot replace the shop's database; nothing changed
 */
export async function restore(file: string, at: Date): Promise<Backup> {
  const folder = dataFolder();
  mkdirSync(workFolder(folder), { recursive: true });
  // Two restores at the same time have separate folders.
  const work = mkdtempSync(join(workFolder(folder), "candidate-"));
  try {
    const { faults } = await prepareCandidate(file, work);
    if (faults.length > 0) throw new RestoreRefused(faults);
    flushFile(databaseFile(work));
    let before: Backup | null = null;
    const exchange = async () => {
      const kept = await backUp(at);
      before = kept;
      takePlace(databaseFile(work), folder);
      try {
        return await openDatabase(folder);
      } catch (thrown) {
        copyFileSync(backupFile(kept.name) ?? "", databaseFile(work));
        flushFile(databaseFile(work));
        takePlace(databaseFile(work), folder);
        throw thrown;
      }
    };
    await behindShutDoor(() => replaceDatabase(exchange));
    if (!before) throw new Error("the shop's database was not backed up");
    return before;
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

/** Renames a database over the shop's, which must be closed, and deletes the old one's log. */
function takePlace(file: string, folder: string): void {
  const own = databaseFile(folder);
  for (const beside of ["-wal", "-shm"]) rmSync(`${own}${beside}`, { force: true });
  renameSync(file, own);
  flushFolder(folder);
}
