import { copyFileSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { openDatabase, replaceDatabase } from "../database.server";
import { databaseFile, dataFolder } from "../databaseFile.server";
import { type Backup, backUp, backupFile } from "./backup.server";
import { prepareCandidate } from "./candidate.server";
import { flushFile, flushFolder } from "./flush.server";

/** A database file that cannot take the shop's place. */
export class RestoreRefused extends Error {
  constructor(readonly faults: readonly string[]) {
    super(faults.join("; "));
  }
}

/**
 * Puts a database file in the place of the shop's. The file is verified and brought up to date in a copy first. Then writes
 * stop, the shop's own is backed up with everything that was acknowledged, and the copy takes its place by one rename; where it
 * cannot be opened the shop's own is put back.
 * @returns the backup of what was here before
 * @throws RestoreRefused where the file cannot take the shop's place; nothing changed
 */
export async function restore(file: string, at: Date): Promise<Backup> {
  const folder = dataFolder();
  const work = join(folder, "restoring");
  try {
    const { faults } = await prepareCandidate(file, work);
    if (faults.length > 0) throw new RestoreRefused(faults);
    flushFile(databaseFile(work));
    let before: Backup | null = null;
    await replaceDatabase(async () => {
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
    });
    if (!before) throw new Error("the shop's database was not backed up");
    return before;
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

/** Renames a database over the shop's, which nobody has open, and does away with the log of the old one. */
function takePlace(file: string, folder: string): void {
  const own = databaseFile(folder);
  for (const beside of ["-wal", "-shm"]) rmSync(`${own}${beside}`, { force: true });
  renameSync(file, own);
  flushFolder(folder);
}
