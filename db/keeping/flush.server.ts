import { closeSync, fsyncSync, openSync } from "node:fs";

/** Waits until a file is on disk. */
export function flushFile(file: string): void {
  const handle = openSync(file, "r+");
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Waits until a folder's entries are on disk, if the system can do that. */
export function flushFolder(folder: string): void {
  let handle: number;
  try {
    handle = openSync(folder, "r");
  } catch {
    // Windows cannot open folders.
    return;
  }
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}
