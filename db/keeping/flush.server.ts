import { closeSync, fsyncSync, openSync } from "node:fs";

/** Waits until a file is on the disk. */
export function flushFile(file: string): void {
  const handle = openSync(file, "r+");
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Waits until the names in a folder are on the disk, where the system can do that. */
export function flushFolder(folder: string): void {
  let handle: number;
  try {
    handle = openSync(folder, "r");
  } catch {
    // Windows opens no folders.
    return;
  }
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}
