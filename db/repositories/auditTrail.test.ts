// The audit trail, which the database itself keeps and nobody changes.
import { describe, expect, test } from "@jest/globals";
import { actAs } from "../acting.server";
import { database } from "../database.server";
import { later, now, useDemoShop, verdict } from "../testing/closedJobs";
import { trailOf } from "./events.server";
import { partsFitted, repairFailed } from "./jobs.server";
import { addNote } from "./notes.server";
import { addReading, deleteReading, readingsOf } from "./readings.server";
import { lastSignIns, noteSignIn } from "./signIns.server";
import { addWork, insertWork, setWorkState, worksOf } from "./works.server";

useDemoShop();

describe("the audit trail", () => {
  test("says what was done, in order, written by the database itself", async () => {
    const before = (await trailOf(6)).length;
    await addReading({
      id: "r1",
      jobId: 6,
      reading: { test: "look", at: "X5", seen: "melted" },
      takenAt: now,
    });
    await deleteReading(6, "r1", later(1));
    await deleteReading(6, "r1", null);
    await addNote(
      { id: "n1", jobId: 6, readingId: null, words: "a screw behind the carpet", takenAt: now },
      null,
    );
    await partsFitted(6, ["R1"], verdict, later(30));
    await repairFailed(6, [], later(40));
    const lines = (await trailOf(6)).slice(before);
    expect(lines.map(({ what }) => what)).toEqual([
      "reading",
      "reading-struck",
      "reading-struck",
      "note",
      "work",
      "fitted",
      "stage",
      "fitting",
      "stage",
    ]);
    expect(lines[0]?.about).toMatchObject({ reading: { test: "look", at: "X5", seen: "melted" } });
    expect(lines[1]?.about.at).not.toBeNull();
    expect(lines[2]?.about.at).toBeNull();
    expect(lines[4]?.about).toEqual({ what: "R1", done: "renewed", state: "done", round: 1 });
    expect(lines[5]?.about).toEqual({ parts: ["R1"], p: 0.97 });
    expect(Math.abs((lines[0]?.at.getTime() ?? 0) - Date.now())).toBeLessThan(60_000);
  });

  test("cannot be changed or deleted", async () => {
    const { sequelize } = await database();
    const before = await trailOf(6);
    for (const sql of ["UPDATE events SET what = 'nothing' WHERE jobId = 6", "DELETE FROM events"])
      await expect(sequelize.query(sql)).rejects.toMatchObject({
        parent: { message: expect.stringContaining("the audit trail is not changed") },
      });
    expect(await trailOf(6)).toEqual(before);
  });

  test("says who did it, also where two work in turns, and where a write of one of them is undone", async () => {
    const before = (await trailOf(6)).length;
    const note = (id: string) => () =>
      addNote({ id, jobId: 6, readingId: null, words: id, takenAt: now }, null);
    const reading = (id: string, amps: number) => () =>
      addReading({ id, jobId: 6, reading: { test: "amps", around: "W1", setting: "4", amps }, takenAt: now });
    const store = await database();
    await actAs("Bay one", note("w1"));
    const broken = actAs("Front desk", () => store.write(() => Promise.reject(new Error("no"))));
    await Promise.all([
      expect(broken).rejects.toThrow("no"),
      actAs("Bay one", reading("w2", 9)),
      actAs("Bay two", reading("w3", 8)),
      actAs("Bay two", note("w4")),
      note("w5")(),
      actAs("Bay one", () => deleteReading(6, "w3", later(1))),
    ]);
    const lines = (await trailOf(6)).slice(before);
    expect(lines.map(({ what, who }) => [what, who])).toEqual([
      ["note", "Bay one"],
      ["reading", "Bay one"],
      ["reading", "Bay two"],
      ["note", "Bay two"],
      ["note", null],
      ["reading-struck", "Bay one"],
    ]);
    const stored = (await readingsOf(6)).filter(({ id }) => /^w\d/.test(id));
    expect(stored.map(({ id, takenBy }) => [id, takenBy])).toEqual([
      ["w2", "Bay one"],
      ["w3", "Bay two"],
    ]);
    for (const sql of ["UPDATE eventPeople SET who = 'x'", "DELETE FROM eventPeople"])
      await expect(store.sequelize.query(sql)).rejects.toThrow();
  });

  test("says who did a line of work; one brought in by a file is nobody's", async () => {
    const line = { what: "heater box seal", done: "renewed" } as const;
    const add = (id: string, state: "planned" | "done") => addWork(6, { ...line, id, state }, now);
    await actAs("Bay one", () => add("p1", "planned"));
    await actAs("Bay two", () => setWorkState(6, "p1", "done"));
    await actAs("Bay one", () => add("p2", "done"));
    const store = await database();
    await actAs("Bay one", () =>
      store.write((transaction) =>
        insertWork(6, { ...line, id: "p3", state: "done", doneBy: null }, 1, now, transaction),
      ),
    );
    const doneBy = async () =>
      (await worksOf(6)).flatMap((own) => (/^p\d/.test(own.id) ? [own.doneBy ?? null] : []));
    expect(await doneBy()).toEqual(["Bay two", "Bay one", null]);
    await actAs("Bay one", () => setWorkState(6, "p1", "planned"));
    expect(await doneBy()).toEqual([null, "Bay one", null]);
  });

  test("has who signed in where, which cannot be changed either", async () => {
    await noteSignIn("Bay two", "bay 2 tablet", "wrong-pin", now);
    await noteSignIn("Bay two", "bay 2 tablet", "in", later(1));
    expect((await lastSignIns(5)).map(({ who, what, at }) => [who, what, at])).toEqual([
      ["Bay two", "in", later(1)],
      ["Bay two", "wrong-pin", now],
    ]);
    const { sequelize } = await database();
    for (const sql of ["UPDATE signIns SET who = 'x'", "DELETE FROM signIns"])
      await expect(sequelize.query(sql)).rejects.toThrow();
  });

  test("a write that is rolled back leaves no line", async () => {
    const store = await database();
    const before = (await trailOf(6)).length;
    const broken = store.write(async (transaction) => {
      await store.sequelize.query("UPDATE jobs SET words = 'x' WHERE id = 6", { transaction });
      throw new Error("no");
    });
    await expect(broken).rejects.toThrow("no");
    expect(await trailOf(6)).toHaveLength(before);
  });
});
