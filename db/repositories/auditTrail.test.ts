// The audit trail, which the database itself keeps and nobody changes.
import { describe, expect, test } from "@jest/globals";
import { database } from "../database.server";
import { later, now, useDemoShop, verdict } from "../testing/closedJobs";
import { trailOf } from "./events.server";
import { partsFitted, repairFailed } from "./jobs.server";
import { addNote } from "./notes.server";
import { addReading, deleteReading } from "./readings.server";

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
