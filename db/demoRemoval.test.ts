// The demo workshop is removed by one action, and what a shop entered itself stays.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { QueryTypes } from "sequelize";
import { closeDatabase, database } from "./database.server";
import { removeDemo } from "./demoRemoval.server";
import { loadDemoWorld } from "./demoWorld.server";
import { listCircuits } from "./repositories/circuits.server";
import { addJob, findJob, listJobs } from "./repositories/jobs.server";
import { addReading, readingsOf } from "./repositories/readings.server";
import { demoState } from "./repositories/settings.server";
import { addVehicle } from "./repositories/vehicles.server";
import { openDemoDatabase } from "./testing/demoDatabase";

let folder = "";
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "airway-demo-removal-"));
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const now = new Date("2026-11-24T10:00:00Z");
const demo = join(process.cwd(), "demo");

test("the demo goes, the shop's own job stays with its circuit, and a start does not bring the demo back", async () => {
  const store = await openDemoDatabase(folder, now);
  const own = await store.write(async (transaction) => {
    const vehicle = await addVehicle(
      { label: "own van", model: "Harrow Whimbrel van", circuitId: "whimbrel-four-speed" },
      transaction,
    );
    return addJob(
      {
        formToken: "demo-van-12",
        vehicleId: vehicle.id,
        circuitId: "whimbrel-four-speed",
        words: "",
        comebackOf: 1,
      },
      transaction,
    );
  });
  await addReading({
    id: "own-1",
    jobId: own,
    reading: { test: "look", at: "X5", seen: "melted" },
    takenAt: now,
  });
  // Something entered on a demo job goes with it.
  await addReading({
    id: "on-demo",
    jobId: 4,
    reading: { test: "look", at: "X6", seen: "melted" },
    takenAt: now,
  });
  expect(await demoState()).toBe("loaded");

  await removeDemo(now);
  expect(await demoState()).toBe("removed");
  expect((await listJobs()).map(({ id }) => id)).toEqual([own]);
  expect((await findJob(own))?.comebackOf).toBeNull();
  expect(await readingsOf(own)).toHaveLength(1);
  expect((await listCircuits()).map(({ shelfId }) => shelfId)).toEqual(["whimbrel-four-speed"]);
  const { sequelize } = await database();
  const rows = async (sql: string) => sequelize.query(sql, { type: QueryTypes.SELECT });
  expect(await rows("PRAGMA foreign_key_check")).toEqual([]);
  expect(await rows("SELECT COUNT(*) AS n FROM closures")).toEqual([{ n: 0 }]);
  expect(await rows("SELECT COALESCE(SUM(n), 0) AS n FROM faultCounts")).toEqual([{ n: 0 }]);
  expect(await rows("SELECT COUNT(*) AS n FROM parts")).toEqual([{ n: 0 }]);
  expect(await rows(`SELECT DISTINCT jobId FROM events`)).toEqual([{ jobId: own }]);
  // The audit trail is sealed again.
  await expect(sequelize.query("DELETE FROM events")).rejects.toThrow();

  await closeDatabase();
  const again = await database();
  expect(await loadDemoWorld(again, demo, now)).toBe(false);
  expect(await listJobs()).toHaveLength(1);
});
