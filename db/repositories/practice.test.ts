import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { defaultStoppingCosts } from "@core/money/stoppingCosts";
import type { PracticeAct } from "@core/practice/practiceBay";
import type { PracticeCase } from "@core/practice/practiceCase";
import { freshRecall, recallAfter } from "@core/practice/spacedRepetition";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { closeDatabase, database } from "../database.server";
import { openDemoDatabase } from "../testing/demoDatabase";
import {
  act,
  actsOf,
  addLearner,
  answersOf,
  beginCase,
  casesOf,
  findCase,
  listLearners,
  recallsOf,
  storeAnswer,
} from "./practice.server";

let folder = "";
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-practice-"));
  process.env.AIRWAY_DATA = folder;
  await openDemoDatabase(folder, new Date("2026-11-24T10:00:00Z"));
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const at = (minute: number): Date => new Date(Date.UTC(2026, 10, 24, 10, minute));
const hidden: PracticeCase = {
  level: "hard",
  kind: "cause",
  fault: [
    { where: "M1", mode: "tight", value: 1.6 },
    { where: "R1.link", mode: "open", value: null },
  ],
  seed: 4711,
  complaint: [{ test: "airflow", heard: true, key: "run", setting: "2", seen: "none" }],
};
const caseOf = (id: string, learner: string, minute: number) => ({
  id,
  learner,
  circuitId: "whimbrel-four-speed",
  title: "Four speeds",
  hidden,
  costs: defaultStoppingCosts,
  startedAt: at(minute),
});
const opened: PracticeAct = { act: "open", place: "under-dash", minutes: 4 };
const done = (own: PracticeAct) => () => ({ ok: true, act: own }) as const;

describe("learners", () => {
  test("are there once, by label", async () => {
    await addLearner("b", at(0));
    await addLearner("a", at(1));
    await addLearner("b", at(2));
    expect(await listLearners()).toEqual(["a", "b"]);
  });

  test("a case of an unknown learner is not stored", async () => {
    await expect(beginCase(caseOf("orphan", "nobody", 0))).rejects.toThrow();
    expect(await findCase("orphan")).toBeNull();
  });
});

describe("a case", () => {
  test("is read as it was stored, started once, the newest first among the learner's own", async () => {
    await beginCase(caseOf("one", "a", 10));
    await beginCase({ ...caseOf("one", "a", 11), title: "Another" });
    await beginCase(caseOf("two", "a", 12));
    await beginCase(caseOf("three", "b", 13));
    expect(await findCase("one")).toEqual({ ...caseOf("one", "a", 10), endedAt: null });
    expect((await casesOf("a")).map(({ id }) => id)).toEqual(["two", "one"]);
    expect(await casesOf("nobody")).toEqual([]);
    expect(await findCase("none")).toBeNull();
  });

  test("takes an action once, however often it is sent, and gives each the actions before it", async () => {
    const before: number[] = [];
    const send = (id: string) =>
      act("one", id, at(20), (acts) => {
        before.push(acts.length);
        return { ok: true, act: opened };
      });
    await Promise.all([send("x"), send("x"), send("x")]);
    expect(before).toEqual([0]);
    await Promise.all(["p", "q", "r", "s"].map(send));
    expect([...before].sort()).toEqual([0, 1, 2, 3, 4]);
    expect(await actsOf("one")).toEqual(Array.from({ length: 5 }, () => opened));
    expect(await actsOf("two")).toEqual([]);
  });

  test("stores nothing that is refused or fails", async () => {
    const count = (await actsOf("one")).length;
    expect(await act("one", "no", at(21), () => ({ ok: false, why: "in the way" }))).toEqual({
      ok: false,
      why: "in the way",
    });
    const fails = act("one", "broken", at(21), () => {
      throw new Error("the vehicle cannot be solved");
    });
    await expect(fails).rejects.toThrow("cannot be solved");
    expect(await actsOf("one")).toHaveLength(count);
    // Refused before, it may be performed later under the same id.
    expect((await act("one", "no", at(22), done(opened))).ok).toBe(true);
  });

  test.each<[string, PracticeAct, boolean]>([
    ["a look", { act: "look", reading: { test: "smell", key: "run", seen: "none" }, minutes: 0.5 }, false],
    ["a comeback", { act: "drive", held: false, minutes: 5, costMinor: 20_000, complaint: [] }, false],
    ["one that held", { act: "drive", held: true, minutes: 5, costMinor: 0, complaint: [] }, true],
    ["giving up", { act: "give-up", minutes: 0 }, true],
  ])("after %s is over or not", async (title, own, over) => {
    const id = `over ${title}`;
    await beginCase(caseOf(id, "b", 30));
    await act(id, `act ${title}`, at(31), done(own));
    expect((await findCase(id))?.endedAt).toEqual(over ? at(31) : null);
    expect(await actsOf(id)).toEqual([own]);
  });

  test("is there after the shop is closed and opened again", async () => {
    const acts = await actsOf("one");
    await closeDatabase();
    await database();
    expect(await actsOf("one")).toEqual(acts);
    expect((await findCase("one"))?.hidden).toEqual(hidden);
  });
});

describe("answers", () => {
  const answer = (id: string, item: string, right: boolean, minute: number) => ({
    id,
    learner: "a",
    item,
    seed: 5,
    right,
    seconds: 12.5,
    answeredAt: at(minute),
  });
  const next = (quality: 1 | 4, minute: number) => (recall: typeof freshRecall) => ({
    recall: recallAfter(recall, quality),
    dueAt: at(minute),
  });

  test("change the learning state by one step each, sent twice by one", async () => {
    for (let sent = 0; sent < 2; sent++)
      await storeAnswer(answer("1", "paths/working-speed", true, 40), next(4, 41));
    expect(await recallsOf("a")).toEqual([
      { item: "paths/working-speed", ...recallAfter(freshRecall, 4), dueAt: at(41) },
    ]);
    await storeAnswer(answer("2", "paths/working-speed", true, 42), next(4, 43));
    const twice = recallAfter(recallAfter(freshRecall, 4), 4);
    expect(await recallsOf("a")).toEqual([{ item: "paths/working-speed", ...twice, dueAt: at(43) }]);
    // SM-2: six days after the second right answer in a row.
    expect(twice.intervalDays).toBe(6);
  });

  test("keep their order, each learner's own", async () => {
    await storeAnswer(answer("4", "humps/count", false, 50), next(1, 50));
    await storeAnswer(answer("3", "light/either-clip", true, 45), next(4, 46));
    expect((await answersOf("a")).map(({ id, right }) => [id, right])).toEqual([
      ["1", true],
      ["2", true],
      ["3", true],
      ["4", false],
    ]);
    expect((await recallsOf("a")).map(({ item }) => item)).toEqual([
      "humps/count",
      "light/either-clip",
      "paths/working-speed",
    ]);
    expect(await answersOf("b")).toEqual([]);
    expect(await recallsOf("b")).toEqual([]);
  });
});
