import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import type { Reading } from "../../core/predict/reading";
import { closeDatabase, database, openDatabase } from "../database.server";
import { loadDemoWorld } from "../demoWorld.server";
import { openDemoDatabase } from "../testing/demoDatabase";
import { closeJob, closureOf, type StoredClosure } from "./closures.server";
import { addJob, findJob, listJobs } from "./jobs.server";
import { lastEventOf } from "./lastEvent.server";
import { addProof, proofsOf } from "./proofs.server";
import { addReading, deleteReading, readingsOf, setHeard } from "./readings.server";

let folder = "";

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-db-"));
  process.env.AIRWAY_DATA = folder;
  await openDemoDatabase(folder, new Date("2026-11-24T10:00:00Z"));
});

afterEach(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const now = new Date("2026-11-24T10:05:00Z");
const dark: Reading = { test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "2", seen: "dark" };
const jobId = 6;
const closing = {
  closure: {
    found: "link melted",
    fault: "R1.link:open",
    parts: ["R1"],
    cause: "none" as const,
    learn: true,
  },
  kind: "link",
  mode: "open",
  family: "resistor ground",
  symptom: "some-speeds",
  looks: 3,
  minutes: 7.5,
  chartMinutes: null,
  repairKind: "resistor",
  repairMinutes: 14,
  totalMinor: 12_300,
} satisfies Omit<StoredClosure, "counted" | "closedAt">;
const standing = async () => (await readingsOf(jobId)).filter(({ struckAt }) => !struckAt);

describe("the demo workshop", () => {
  test("has circuits of both sides, fourteen vehicles, sixteen jobs in different stages and fourteen past ones", async () => {
    const jobs = await listJobs();
    expect(jobs).toHaveLength(30);
    expect(new Set(jobs.map(({ vehicle }) => vehicle.label)).size).toBe(14);
    expect(new Set(jobs.map(({ stage }) => stage))).toEqual(
      new Set(["probing", "part-awaited", "proof-due", "closed"]),
    );
  });

  test("is loaded only into an empty database", async () => {
    expect(await loadDemoWorld(await database(), join(process.cwd(), "demo"), now)).toBe(false);
    expect(await listJobs()).toHaveLength(30);
  });
});

describe("readings", () => {
  test("one sent twice is stored once, and keeps its first value", async () => {
    await addReading({ id: "one", jobId, reading: dark, takenAt: now });
    await addReading({ id: "one", jobId, reading: { ...dark, seen: "bright" }, takenAt: now });
    const stored = (await readingsOf(jobId)).filter(({ id }) => id === "one");
    expect(stored.map(({ reading }) => reading)).toEqual([dark]);
  });

  test("a hundred at once are all stored, each with its own number", async () => {
    const before = (await readingsOf(jobId)).length;
    await Promise.all(
      Array.from({ length: 100 }, (_, i) => addReading({ id: `p${i}`, jobId, reading: dark, takenAt: now })),
    );
    const after = await readingsOf(jobId);
    expect(after).toHaveLength(before + 100);
    expect(new Set(after.map(({ number }) => number)).size).toBe(before + 100);
  });

  test("survive the database being closed and opened again", async () => {
    await addReading({ id: "kept", jobId, reading: dark, takenAt: now });
    await closeDatabase();
    await database();
    expect((await readingsOf(jobId)).at(-1)).toMatchObject({ id: "kept", reading: dark, takenAt: now });
  });

  test("deleted and restored they are what they were", async () => {
    const before = await readingsOf(jobId);
    const last = before.at(-1);
    await deleteReading(jobId, last?.id ?? "", now);
    expect((await standing()).map(({ id }) => id)).not.toContain(last?.id);
    await deleteReading(jobId, last?.id ?? "", null);
    expect(await readingsOf(jobId)).toEqual(before);
  });

  test("a word on a speed replaces the earlier one, the same word changes nothing, none deletes it", async () => {
    const word = (seen: "none" | "weak"): Reading => ({
      test: "airflow",
      heard: true,
      key: "run",
      setting: "2",
      seen,
    });
    const onTwo = async () =>
      (await standing()).flatMap(({ reading }) =>
        reading.test === "airflow" && reading.setting === "2" ? [reading.seen] : [],
      );
    const set = (id: string, seen: Reading | null) =>
      setHeard({ id, jobId, reading: word("none"), takenAt: now }, seen);
    expect(await onTwo()).toEqual(["none"]);
    await set("h1", word("weak"));
    expect(await onTwo()).toEqual(["weak"]);
    const count = (await readingsOf(jobId)).length;
    await set("h2", word("weak"));
    expect((await readingsOf(jobId)).length).toBe(count);
    await set("h3", null);
    expect(await onTwo()).toEqual([]);
  });

  test("the number of the last change grows with every one added, deleted or restored, and with nothing else", async () => {
    const seen = [await lastEventOf(jobId)];
    const after = async (writing: Promise<unknown>) => {
      await writing;
      seen.push(await lastEventOf(jobId));
    };
    await after(addReading({ id: "v1", jobId, reading: dark, takenAt: now }));
    await after(addReading({ id: "v2", jobId, reading: dark, takenAt: now }));
    await after(deleteReading(jobId, "v1", now));
    await after(deleteReading(jobId, "v1", null));
    expect(seen).toEqual([...new Set(seen)].sort((a, b) => a - b));
    await after(addReading({ id: "v2", jobId, reading: dark, takenAt: now }));
    expect(seen.at(-1)).toBe(seen.at(-2));
    await deleteReading(jobId, "v2", now);
  });

  test("for an unknown job nothing is stored", async () => {
    await expect(addReading({ id: "lost", jobId: 999, reading: dark, takenAt: now })).rejects.toThrow();
    expect(await readingsOf(999)).toEqual([]);
  });
});

describe("jobs", () => {
  test("the same form sent twice opens one job", async () => {
    const store = await database();
    const job = {
      formToken: "form-1",
      vehicleId: 1,
      circuitId: "whimbrel-four-speed",
      words: "",
    };
    const ids = await Promise.all([1, 2].map(() => store.write((transaction) => addJob(job, transaction))));
    expect(ids[0]).toBe(ids[1]);
    expect(await listJobs()).toHaveLength(31);
  });

  test("closing keeps what was found", async () => {
    await closeJob(2, { ...closing, closedAt: now });
    expect(await findJob(2)).toMatchObject({ stage: "closed", found: "link melted", closedAt: now });
    expect(await closureOf(2)).toEqual({ ...closing, closedAt: now, counted: true });
  });

  test("a check step found again replaces the earlier finding, and an older repair's is left out", async () => {
    const entry = { jobId: 2, step: "up-1", judged: "right", takenAt: now } as const;
    await addProof({ ...entry, id: "a", judged: "too-low", finding: { by: "airflow", seen: "none" } });
    const later = new Date(now.getTime() + 1000);
    await addProof({ ...entry, id: "b", finding: { by: "amps", amps: 14.2 }, takenAt: later });
    expect((await proofsOf(2, null)).map(({ finding }) => finding)).toEqual([{ by: "amps", amps: 14.2 }]);
    expect(await proofsOf(2, new Date(now.getTime() + 60_000))).toEqual([]);
  });
});

test("every connection that writes is durable: WAL, full sync, foreign keys", async () => {
  const other = await openDatabase(mkdtempSync(join(tmpdir(), "airway-db-")));
  await other.close();
});
