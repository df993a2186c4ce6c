import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { dataFolder } from "../dataFolder.server";

/**
 * The folder of keys, devices and people, readable by the server's own user only. It is in no backup and no export, so
 * that restoring one lets nobody in again.
 */
export function privateFolder(): string {
  const folder = join(dataFolder(), "network");
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  chmodSync(folder, 0o700);
  return folder;
}

/** Writes a file whole, readable by the server's own user only. */
export function writePrivate(name: string, text: string): void {
  const file = join(privateFolder(), name);
  writeFileSync(`${file}.new`, text, { mode: 0o600 });
  renameSync(`${file}.new`, file);
}

/** A file of the private folder; null if there is none. */
export function readPrivate(name: string): string | null {
  const file = join(privateFolder(), name);
  return existsSync(file) ? readFileSync(file, "utf8") : null;
}
