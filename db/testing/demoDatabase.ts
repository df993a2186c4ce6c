import { copyFileSync, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Database, database, openDatabase } from "../database.server";
import { databaseFile } from "../databaseFile.server";
import { loadDemoWorld } from "../demoWorld.server";

/** Where a run of the tests stores what its suites share; outside such a run, a folder of this process alone. */
const sharedFolder = (): string =>
  process.env.AIRWAY_TEST_SHARED ?? join(tmpdir(), `airway-test-${process.pid}`);

/** The demo workshop's database as loaded at a moment; made once for a run of the tests and then copied. */
async function loadedAt(now: Date): Promise<string> {
  const shared = sharedFolder();
  const file = join(shared, `demo-${now.getTime()}.sqlite`);
  if (existsSync(file)) return file;
  mkdirSync(shared, { recursive: true });
  const folder = mkdtempSync(join(shared, "loading-"));
  const store = await openDatabase(folder);
  await loadDemoWorld(store, join(process.cwd(), "demo"), now);
  await store.sequelize.query("PRAGMA wal_checkpoint(TRUNCATE)");
  await store.close();
  // Suites run side by side. Each renames a whole file into place, and it does not matter which is last.
  renameSync(databaseFile(folder), file);
  rmSync(folder, { recursive: true, force: true });
  return file;
}

/**
 * Opens the demo workshop in a data folder, as the process's database.
 * @param now when the workshop is loaded; its past jobs are dated before that
 */
export async function openDemoDatabase(folder: string, now: Date): Promise<Database> {
  copyFileSync(await loadedAt(now), databaseFile(folder));
  process.env.AIRWAY_DATA = folder;
  return database();
}
