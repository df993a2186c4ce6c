import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, test } from "@jest/globals";
import { closeDatabase, database, databaseFile } from "../database.server";
import { PlainSqlite } from "../keeping/plainSqlite.server";
import { openDemoDatabase } from "../testing/demoDatabase";
import { findJob, setSchool } from "./jobs.server";
import { addReading } from "./readings.server";
import { setLearning } from "./settings.server";
import { untilCommit } from "./untilCommit.server";

let folder = "";

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-kept-"));
  process.env.AIRWAY_DATA = folder;
  await openDemoDatabase(folder, new Date("2026-11-24T10:00:00Z"));
});

afterEach(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

/** A read that counts how often it is made. */
function counted<T>(read: () => Promise<T>) {
  const made = { times: 0 };
  return {
    made,
    ask: () =>
      untilCommit("counted", () => {
        made.times += 1;
        return read();
      }),
  };
}

test("what was read is read again once a transaction was committed, and not after a reading", async () => {
  const { made, ask } = counted(() => findJob(6));
  const school = (await ask())?.school;
  await ask();
  expect(made.times).toBe(1);
  await addReading({
    id: "8f0c1a52-6a54-4d8e-9e55-0d7f1f6a2b11",
    jobId: 6,
    reading: { test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "2", seen: "dark" },
    takenAt: new Date("2026-11-24T10:05:00Z"),
  });
  await ask();
  expect(made.times).toBe(1);
  await setSchool(6, school === "supply-first" ? "least-time" : "supply-first");
  expect((await ask())?.school).not.toBe(school);
  expect(made.times).toBe(2);
  await setLearning(false);
  await ask();
  expect(made.times).toBe(3);
});

test("what another process committed is seen", async () => {
  const { made, ask } = counted(() => findJob(6));
  await ask();
  const other = await PlainSqlite.open(databaseFile(folder));
  await other.run("UPDATE jobs SET words = 'told elsewhere' WHERE id = 6");
  await other.close();
  expect((await ask())?.words).toBe("told elsewhere");
  expect(made.times).toBe(2);
});

test("a read that fails is made again, and another database has nothing of the one before", async () => {
  let fails = true;
  const ask = () => untilCommit("failing", async () => (fails ? Promise.reject(new Error("away")) : "here"));
  await expect(ask()).rejects.toThrow("away");
  fails = false;
  expect(await ask()).toBe("here");
  await closeDatabase();
  const { made, ask: again } = counted(() => Promise.resolve("anew"));
  expect(await again()).toBe("anew");
  await closeDatabase();
  await database();
  expect(await again()).toBe("anew");
  expect(made.times).toBe(2);
});
