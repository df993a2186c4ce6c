import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { PlainSqlite } from "./keeping/plainSqlite.server";

const holderSchema = z.object({ pid: z.number(), address: z.string(), since: z.string() });
/** The process that uses a data folder. */
export type LockHolder = z.infer<typeof holderSchema>;

/** Another process works on the data folder. */
export class DataFolderInUse extends Error {
  constructor(
    readonly folder: string,
    readonly holder: LockHolder | null,
  ) {
    const who = holder
      ? `process ${holder.pid}, at ${holder.address}, since ${holder.since}`
      : "another process";
    super(
      `Airway already runs on the data folder ${folder} (${who}). Stop it first, or set AIRWAY_DATA to another folder.`,
    );
  }
}

const lockFile = (folder: string): string => join(folder, "airway.lock");
const holderFile = (folder: string): string => join(folder, "airway.lock.json");

/**
 * Locks a data folder for this process until it is released or the process ends in any way. The lock is one that
 * SQLite holds on a file of its own, so the system releases it when the process dies.
 * @returns releases it
 * @throws DataFolderInUse if another process holds it
 */
export async function lockDataFolder(folder: string, holder: LockHolder): Promise<() => Promise<void>> {
  const lock = await PlainSqlite.open(lockFile(folder), { create: true });
  try {
    await lock.run("BEGIN EXCLUSIVE");
  } catch (thrown) {
    await lock.close();
    if (/SQLITE_BUSY/.test((thrown as Error).message)) throw new DataFolderInUse(folder, holderOf(folder));
    throw thrown;
  }
  writeFileSync(holderFile(folder), JSON.stringify(holder));
  return async () => {
    rmSync(holderFile(folder), { force: true });
    await lock.close();
  };
}

function holderOf(folder: string): LockHolder | null {
  try {
    return holderSchema.parse(JSON.parse(readFileSync(holderFile(folder), "utf8")));
  } catch {
    return null;
  }
}
