import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { faultLabel } from "../core/diagnose/belief/learnedPrior";
import { readingProblems } from "../core/predict/readingProblems";
import { shippedEngine } from "../core/testing/shippedCircuit";
import { type Database, openDatabase } from "./database.server";
import { loadDemoWorld, shippedCircuits } from "./demoWorld.server";
import { findCircuit, listCircuits } from "./repositories/circuits.server";
import { closureOf } from "./repositories/closures.server";
import { fittingsOf } from "./repositories/fittings.server";
import { comebacksOf, listJobs } from "./repositories/jobs.server";
import { proofsOf } from "./repositories/proofs.server";
import { readingsOf } from "./repositories/readings.server";

const now = new Date("2026-11-24T10:00:00Z");
let folder = "";
let demo = "";
let store: Database;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-demo-"));
  demo = join(folder, "demo");
  cpSync("demo", demo, { recursive: true });
  store = await openDatabase(join(folder, "data"));
});

afterEach(async () => {
  await store.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Loads the demo with something in a copy of its world changed. */
function loadWith(
  change: (world: { vehicles: Record<string, unknown>[]; jobs: Record<string, unknown>[] }) => void,
) {
  const file = join(demo, "world.json");
  const world = JSON.parse(readFileSync(file, "utf8"));
  change(world);
  writeFileSync(file, JSON.stringify(world));
  return loadDemoWorld(store, demo, now);
}

describe("the demo workshop", () => {
  test("contains every shipped circuit, complete", async () => {
    await loadDemoWorld(store, demo, now);
    const files = readdirSync(join(demo, "circuits"));
    expect((await listCircuits()).length).toBe(files.length);
    for (const { shelfId: id, title } of await listCircuits())
      expect(await findCircuit(id)).toMatchObject({ id, title });
    expect(await findCircuit("heron")).toBeNull();
  });

  test("has jobs that came in before now, their readings after that, in order", async () => {
    await loadDemoWorld(store, demo, now);
    for (const job of await listJobs()) {
      expect(job.createdAt.getTime()).toBeLessThan(now.getTime());
      const readings = await readingsOf(job.id);
      expect(readings.map(({ number }) => number)).toEqual(readings.map((_, i) => i + 1));
      for (const { takenAt } of readings)
        expect(takenAt.getTime()).toBeGreaterThanOrEqual(job.createdAt.getTime());
      if (job.stage === "closed") {
        expect(job.closedAt).not.toBeNull();
        expect((await proofsOf(job.id, job.fittedAt)).length).toBeGreaterThan(0);
      }
    }
  });

  test("has no reading that its circuit does not know", async () => {
    await loadDemoWorld(store, demo, now);
    for (const job of await listJobs()) {
      const engine = shippedEngine(job.circuitId);
      for (const { reading } of await readingsOf(job.id))
        expect(readingProblems(engine, reading)).toEqual([]);
    }
  });

  test("closed its past jobs on faults their circuits list, proven and held or come back", async () => {
    await loadDemoWorld(store, demo, now);
    const past = (await listJobs()).filter(({ id, stage }) => stage === "closed" && id > 16);
    expect(past).toHaveLength(14);
    for (const job of past) {
      const closure = await closureOf(job.id);
      const engine = shippedEngine(job.circuitId);
      const variant = engine.variants.find(({ family }) => family === closure?.closure.fault);
      expect(variant && faultLabel(engine, variant)).toEqual({ kind: closure?.kind, mode: closure?.mode });
      const outcome = (await comebacksOf(job.id)).length > 0 ? "came-back" : "held";
      expect((await fittingsOf(job.id)).map((own) => own.outcome)).toEqual([outcome]);
    }
  });

  test.each<[string, Parameters<typeof loadWith>[0], RegExp]>([
    [
      "a job for no vehicle",
      ({ jobs }) => Object.assign(jobs[0] ?? {}, { vehicle: "ghost" }),
      /no vehicle ghost/,
    ],
    [
      "a vehicle of no circuit",
      ({ vehicles }) => vehicles.forEach((own) => void Object.assign(own, { circuitId: "heron" })),
      /FOREIGN KEY/,
    ],
    ["a stage that is none", ({ jobs }) => Object.assign(jobs[0] ?? {}, { stage: "lost" }), /stage/],
    [
      "a reading that is none",
      ({ jobs }) => Object.assign(jobs[0] ?? {}, { readings: [{ test: "sniff" }] }),
      /test/,
    ],
  ])("%s is refused and leaves the database empty", async (_, change, message) => {
    await expect(loadWith(change)).rejects.toThrow(message);
    expect(await listJobs()).toEqual([]);
    expect(await listCircuits()).toEqual([]);
  });

  test("a circuit that does not parse is named by its file and place", () => {
    writeFileSync(
      join(demo, "circuits", "whimbrel-four-speed.json"),
      '{"format":"airway-circuit","version":3}',
    );
    expect(() => shippedCircuits(join(demo, "circuits"))).toThrow(/^whimbrel-four-speed\.json: .*version/);
  });
});

describe("writes", () => {
  test("wait for one another, and one that fails does not affect the others", async () => {
    await loadDemoWorld(store, demo, now);
    const order: number[] = [];
    const first = store.write(async () => {
      await new Promise((resolve) => setTimeout(resolve, 30));
      order.push(1);
    });
    const failing = store.write(() => {
      order.push(2);
      return Promise.reject(new Error("spoilt"));
    });
    const last = store.write(() => Promise.resolve(order.push(3)));
    await expect(failing).rejects.toThrow("spoilt");
    await Promise.all([first, last]);
    expect(order).toEqual([1, 2, 3]);
  });

  test("closing waits for the write in progress", async () => {
    let done = false;
    void store.write(async () => {
      await new Promise((resolve) => setTimeout(resolve, 30));
      done = true;
    });
    await store.close();
    expect(done).toBe(true);
    store = await openDatabase(join(folder, "data"));
  });
});

test("every shipped circuit has a demo vehicle with a job to try", () => {
  const world = JSON.parse(readFileSync(join(process.cwd(), "demo", "world.json"), "utf8")) as {
    vehicles: { label: string; circuitId: string }[];
    jobs: { vehicle: string }[];
  };
  const played = new Set(
    world.jobs.map((one) => world.vehicles.find(({ label }) => label === one.vehicle)?.circuitId),
  );
  for (const id of [
    "dotterel-linear-high",
    "dotterel-switch-feed",
    "dunlin-pwm-high",
    "dunlin-rear-blower",
    "dunlin-three-speed",
    "godwit-four-speed-feed",
    "godwit-four-speed-rhd",
    "godwit-two-relays",
    "siskin-five-speed",
    "siskin-linear-low",
    "whimbrel-four-speed",
    "whimbrel-high-relay",
    "whimbrel-pwm-low",
  ])
    expect(played).toContain(id);
});
