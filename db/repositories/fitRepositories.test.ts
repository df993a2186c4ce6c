// Plans, ticks, parts, comparisons, estimates and rates: stored once, and still there when the database is opened
// again.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { defaultShopTerms } from "../../core/money/shopTerms";
import { shippedPlan } from "../../core/testing/shippedPlan";
import { closeDatabase, database } from "../database.server";
import type { EstimateBody } from "../storedColumns";
import { openDemoDatabase } from "../testing/demoDatabase";
import { addEstimate, approveEstimate, estimatesOf } from "./estimates.server";
import { listParts, matchesOf, setMatch, storePart } from "./parts.server";
import { addPlanNote, deletePlanNote, findPlan, movePlan, planNotesOf, storePlan } from "./plans.server";
import {
  addTick,
  deleteTick,
  measuredSteps,
  type RepairTick,
  repairOf,
  setRepair,
  ticksOf,
} from "./repairs.server";
import { setShopTerms, shopTerms } from "./settings.server";

let folder = "";
const shelf = "siskin-five-speed";
const plan = shippedPlan("siskin-glove-box");
const at = (minute: number): Date => new Date(Date.UTC(2026, 10, 24, 9, minute));

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-fit-"));
  process.env.AIRWAY_DATA = folder;
  await openDemoDatabase(folder, at(0));
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

/** Closes the database and opens it again, as after a restart. */
async function restart(): Promise<void> {
  await closeDatabase();
  await database();
}

describe("a plan and its versions", () => {
  const named = (title: string) => ({ ...plan, title });
  const title = async (): Promise<string | undefined> => (await findPlan(shelf))?.plan.title;

  test("the demo's is there, with nothing to undo; a circuit without one has none", async () => {
    expect(await findPlan(shelf)).toMatchObject({ plan, undo: false, redo: false });
    expect(await findPlan("godwit-two-relays")).toBeNull();
  });

  test("each change is the next, undone and redone to either end and no further, across a restart", async () => {
    await storePlan(shelf, named("one"), "a");
    await storePlan(shelf, named("two"), "b");
    await movePlan(shelf, -1, "c");
    await restart();
    expect(await title()).toBe("one");
    expect(await findPlan(shelf)).toMatchObject({ undo: true, redo: true });
    await movePlan(shelf, 1, "d");
    await movePlan(shelf, 1, "e");
    expect(await title()).toBe("two");
    for (const step of ["f", "g", "h"]) await movePlan(shelf, -1, step);
    expect(await title()).toBe(plan.title);
  });

  test("a change sent twice is one, and so is an undo; a change after an undo drops what was undone", async () => {
    await storePlan(shelf, named("three"), "i");
    await storePlan(shelf, named("three"), "i");
    expect(await findPlan(shelf)).toMatchObject({ undo: true, redo: false });
    await movePlan(shelf, -1, "j");
    await movePlan(shelf, -1, "j");
    expect(await title()).toBe(plan.title);
    await storePlan(shelf, named("four"), "k");
    await movePlan(shelf, 1, "l");
    expect(await title()).toBe("four");
    await movePlan("no-such-shelf", 1, "m");
  });
});

describe("notes on a step", () => {
  const note = { id: "n1", step: "glove-box", words: "the hidden one is behind the light", takenAt: at(1) };

  test("stay with the circuit, once, deleted and restored only for their own circuit", async () => {
    await addPlanNote(shelf, note);
    await addPlanNote(shelf, { ...note, words: "other words" });
    expect(await planNotesOf(shelf)).toEqual([{ ...note, struckAt: null }]);
    await deletePlanNote("another-shelf", "n1", at(2));
    expect((await planNotesOf(shelf))[0]?.struckAt).toBeNull();
    await deletePlanNote(shelf, "n1", at(2));
    expect((await planNotesOf(shelf))[0]?.struckAt).toEqual(at(2));
    await deletePlanNote(shelf, "n1", null);
    expect((await planNotesOf(shelf))[0]?.struckAt).toBeNull();
  });
});

describe("a job's repair and its ticks", () => {
  const job = 16;
  const tick = (id: string, step: string, more: Partial<RepairTick> = {}): Omit<RepairTick, "round"> => ({
    id,
    step,
    way: "in",
    screws: 0,
    minutes: null,
    takenAt: at(3),
    reason: null,
    counts: null,
    ...more,
  });

  test("there is no choice until it is made, and the last one counts", async () => {
    expect(await repairOf(job)).toBeNull();
    await setRepair(job, { targets: ["M1"], prefer: "book" });
    await setRepair(job, { targets: ["R1", "M1"], prefer: "kind" });
    await restart();
    expect(await repairOf(job)).toEqual({ targets: ["R1", "M1"], prefer: "kind", round: 1 });
  });

  test("a tick is stored once; if the step is ticked again the last tick counts; a removed one is gone", async () => {
    await addTick(job, shelf, tick("t1", "flap"));
    await addTick(job, shelf, tick("t1", "flap", { screws: 9 }));
    await addTick(job, shelf, tick("t2", "glove-box", { screws: 6, minutes: 5, takenAt: at(8) }));
    await addTick(job, shelf, tick("t3", "glove-box", { screws: 7, minutes: 4, takenAt: at(9) }));
    await addTick(job, shelf, tick("t4", "glove-box", { way: "back", screws: 7, takenAt: at(20) }));
    await restart();
    expect((await ticksOf(job)).map(({ id, screws }) => [id, screws])).toEqual([
      ["t1", 0],
      ["t3", 7],
      ["t4", 7],
    ]);
    await deleteTick(15, "t4", at(21));
    expect(await ticksOf(job)).toHaveLength(3);
    await deleteTick(job, "t4", at(21));
    expect(await ticksOf(job)).toHaveLength(2);
    expect(await ticksOf(15)).toEqual([]);
  });

  test("only measured, active ticks of the removal teach a step its minutes, from any job", async () => {
    await addTick(15, shelf, tick("t5", "glove-box", { minutes: 6, takenAt: at(30) }));
    await addTick(15, shelf, tick("t6", "glove-box", { way: "back", minutes: 9, takenAt: at(31) }));
    await addTick(15, "another-shelf", tick("t7", "flap", { minutes: 9, takenAt: at(32) }));
    expect(await measuredSteps(shelf)).toEqual([
      { step: "glove-box", minutes: 4 },
      { step: "glove-box", minutes: 6 },
    ]);
  });

  test("an unknown job takes no tick", async () => {
    await expect(addTick(9999, shelf, tick("t8", "flap"))).rejects.toThrow();
  });

  test("forty ticks sent at once are forty, none twice", async () => {
    const sent = Array.from({ length: 40 }, (_, i) => tick(`m${i}`, `step${i}`, { takenAt: at(40) }));
    await Promise.all([...sent, ...sent].map((one) => addTick(14, shelf, one)));
    expect(new Set((await ticksOf(14)).map(({ id }) => id)).size).toBe(40);
    expect(await ticksOf(14)).toHaveLength(40);
  });
});

describe("parts and their comparison", () => {
  test("a listed number stays as it is, however it is written, until someone replaces it", async () => {
    const before = (await listParts()).length;
    const part = {
      format: "airway-part",
      version: 1,
      number: "ZX 10-1",
      title: "first",
      kind: "motor",
    } as const;
    const again = { ...part, number: "ZX101", title: "second" };
    expect(await storePart(part)).toBe(true);
    expect(await storePart(again)).toBe(false);
    expect((await listParts()).find(({ title }) => title === "second")).toBeUndefined();
    expect(await storePart(again, true)).toBe(true);
    const parts = await listParts();
    expect(parts).toHaveLength(before + 1);
    expect(parts.find(({ number }) => number === "ZX101")?.title).toBe("second");
  });

  test("a job compares one pair for each part, with its overrides in words", async () => {
    const overrides = [{ feature: "tab", words: "turned by hand", at: "2026-11-24T09:00:00.000Z" }];
    await setMatch(6, { part: "R1", oldNumber: "HW 4410-17", newNumber: null, overrides: [] });
    await setMatch(6, { part: "R1", oldNumber: "HW 4410-17", newNumber: "HW 4410-18", overrides });
    await setMatch(6, { part: "M1", oldNumber: null, newNumber: null, overrides: [] });
    await restart();
    expect(await matchesOf(6)).toEqual([
      { part: "M1", oldNumber: null, newNumber: null, overrides: [] },
      { part: "R1", oldNumber: "HW 4410-17", newNumber: "HW 4410-18", overrides },
    ]);
    expect(await matchesOf(5)).toEqual([]);
  });
});

describe("estimates", () => {
  const body: EstimateBody = {
    title: "The part only",
    currency: "XXX",
    rounding: defaultShopTerms.rounding,
    lines: [
      { kind: "part", title: "pack", quantityMilli: 1000, unit: "pc", eachMinor: 3900, taxBasisPoints: 2000 },
    ],
  };

  test("are numbered in order, each job its own; of several sent at once none is lost and none is doubled", async () => {
    const ids = ["e1", "e2", "e3", "e4"];
    await Promise.all([...ids, ...ids].map((id) => addEstimate(6, { id, kind: "estimate", body }, at(50))));
    await addEstimate(5, { id: "other", kind: "estimate", body }, at(51));
    expect((await estimatesOf(6)).map(({ number }) => number)).toEqual([1, 2, 3, 4]);
    expect((await estimatesOf(5)).map(({ number }) => number)).toEqual([1]);
  });

  test("the first approval counts, only for its own job, and no version changes another", async () => {
    await approveEstimate(5, "e1", "by phone", at(52));
    expect((await estimatesOf(6))[0]?.approvedAt).toBeNull();
    await approveEstimate(6, "e1", "by phone", at(52));
    await approveEstimate(6, "e1", "at the counter", at(53));
    await addEstimate(6, { id: "e1", kind: "bill", body: { ...body, title: "changed" } }, at(54));
    await restart();
    expect((await estimatesOf(6))[0]).toMatchObject({
      kind: "estimate",
      body,
      approvedAt: at(52),
      approvedBy: "by phone",
    });
  });
});

test("a shop's rates are the usual ones until they are set, and survive a restart", async () => {
  expect(await shopTerms()).toEqual(defaultShopTerms);
  const own = { ...defaultShopTerms, currency: "EUR", hourMinor: 7450 };
  await setShopTerms({ ...own, hourMinor: 1 });
  await setShopTerms(own);
  await restart();
  expect(await shopTerms()).toEqual(own);
});
