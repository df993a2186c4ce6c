import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeEach } from "@jest/globals";

/** Gives every test of a file an empty data folder of its own. */
export function useEmptyDataFolder(): void {
  const before = process.env.AIRWAY_DATA;
  const folders: string[] = [];
  beforeEach(() => {
    const folder = mkdtempSync(join(tmpdir(), "airway-test-"));
    folders.push(folder);
    process.env.AIRWAY_DATA = folder;
  });
  afterAll(() => {
    if (before === undefined) delete process.env.AIRWAY_DATA;
    else process.env.AIRWAY_DATA = before;
    for (const folder of folders) rmSync(folder, { recursive: true, force: true });
  });
}
