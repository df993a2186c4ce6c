// kill -9 in the middle of writes, the short form; `npm run bench:crash` does it ten times with a thousand each.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@jest/globals";
import { closeDatabase } from "../database.server";
import { crashOnce } from "../testing/crash";
import { openDemoDatabase } from "../testing/demoDatabase";

test("every reading that was acknowledged before the kill is there, none twice, and the database is sound", async () => {
  const folder = mkdtempSync(join(tmpdir(), "airway-crash-"));
  process.env.AIRWAY_DATA = folder;
  await openDemoDatabase(folder, new Date("2026-11-24T10:00:00Z"));
  await closeDatabase();
  const found = await crashOnce(folder, 0, 400, 120);
  expect(found.acknowledged).toBeGreaterThanOrEqual(120);
  expect(found.acknowledged).toBeLessThan(400);
  expect(found.lost).toEqual([]);
  expect(found.twice).toBe(0);
  expect(found.faults).toEqual([]);
  expect(found.stored).toBeGreaterThanOrEqual(found.acknowledged);
  rmSync(folder, { recursive: true, force: true });
});
