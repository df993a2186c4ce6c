// What the shop learns from closed jobs, and what a comeback, an undone closing and a failed fitting take back.
import { describe, expect, test } from "@jest/globals";
import { everything } from "../recordQuery";
import { closed, closing, comeback, later, useDemoShop, verdict } from "../testing/closedJobs";
import { closeJob, closureOf, faultCounts, lessons, measuredRepairs, setCounted } from "./closures.server";
import { trailOf } from "./events.server";
import { fittingsOf } from "./fittings.server";
import { comebacksOf, deleteJob, findJob, partsFitted, reopen, repairFailed } from "./jobs.server";
import { readingsOf } from "./readings.server";
import { findRecords } from "./records.server";
import { secondLooks, storeSecondLook, undoSecondLook } from "./secondLooks.server";

useDemoShop();

const n = async (kind: string, mode: string, family = "resistor ground"): Promise<number> =>
  (await faultCounts(family)).ofFamily.find((own) => own.kind === kind && own.mode === mode)?.n ?? 0;

describe("what the shop learns", () => {
  test("one closing is one count; closed again, corrected, deleted and restored it is still one or none", async () => {
    const start = await n("link", "open");
    await closed(6);
    expect(await n("link", "open")).toBe(start + 1);
    expect(await closeJob(6, closing())).toMatchObject({ code: "other-stage", stage: "closed" });
    expect(await n("link", "open")).toBe(start + 1);
    await reopen(6, later(65));
    await closed(6, { kind: "motor", mode: "tight" });
    expect([await n("link", "open"), await n("motor", "tight")]).toEqual([start, 1]);
    await deleteJob(6, later(70));
    expect(await n("motor", "tight")).toBe(0);
    await deleteJob(6, null);
    expect(await n("motor", "tight")).toBe(1);
    await setCounted(6, false);
    expect(await n("motor", "tight")).toBe(0);
    await deleteJob(6, later(71));
    await setCounted(6, true);
    expect(await n("motor", "tight")).toBe(0);
    expect((await lessons(100)).some(({ jobId }) => jobId === 6)).toBe(false);
    await setCounted(6, false);
    await deleteJob(6, null);
    expect(await n("motor", "tight")).toBe(0);
    await setCounted(6, true);
    expect(await n("motor", "tight")).toBe(1);
  });

  test("a review changes what is counted and nothing that was written, once, until it is undone or the job closed again", async () => {
    const before = { kind: "link", mode: "open", counted: true };
    const after = { kind: "motor", mode: "tight", counted: true };
    const start = await n("link", "open");
    await closed(6);
    await storeSecondLook(6, before, after, later(70));
    expect([await n("link", "open"), await n("motor", "tight")]).toEqual([start, 1]);
    expect((await closureOf(6))?.closure).toMatchObject({
      fault: "R1.link:open",
      found: closing().closure.found,
    });
    // Reviewed a second time by another tab, the first review stands.
    await storeSecondLook(6, after, { ...after, counted: false }, later(71));
    expect(await secondLooks()).toEqual([{ jobId: 6, before, after, undone: false }]);
    await undoSecondLook(6, later(72));
    expect([await n("link", "open"), await n("motor", "tight")]).toEqual([start + 1, 0]);
    await undoSecondLook(6, null);
    expect(await n("motor", "tight")).toBe(1);
    await reopen(6, later(73));
    expect(await secondLooks()).toEqual([]);
    await closed(6);
    expect([await n("link", "open"), await n("motor", "tight")]).toEqual([start + 1, 0]);
  });

  test("a guess is never counted: a cause outside the list, or a job excluded from learning", async () => {
    const before = await faultCounts("resistor ground");
    const { closure } = closing();
    await closed(6, { closure: { ...closure, fault: "unknown" }, kind: "unknown", mode: "unknown" });
    await closed(7, { closure: { ...closure, learn: false } });
    expect(await faultCounts("resistor ground")).toEqual(before);
    await setCounted(6, true);
    expect(await faultCounts("resistor ground")).toEqual(before);
    expect(
      (await lessons(5)).filter(({ jobId }) => jobId === 6 || jobId === 7).map(({ counted }) => counted),
    ).toEqual([false, false]);
  });

  test("counts of a family are separate from the others', and minutes are summed by kind", async () => {
    const before = (await measuredRepairs()).find(({ kind }) => kind === "resistor") ?? {
      jobs: 0,
      minutes: 0,
    };
    const dead = async () =>
      (await faultCounts("resistor ground")).counts.find(
        ({ kind, mode }) => kind === "module" && mode === "dead",
      )?.n ?? 0;
    const deadBefore = await dead();
    await closed(6);
    await closed(7, { family: "chopping ground", kind: "module", mode: "dead", repairMinutes: 40 });
    expect(await dead()).toBe(deadBefore + 1);
    const ground = await faultCounts("resistor ground");
    expect(ground.ofFamily.some(({ kind }) => kind === "module")).toBe(false);
    const after = (await measuredRepairs()).find(({ kind }) => kind === "resistor");
    expect(after).toEqual({ kind: "resistor", jobs: before.jobs + 2, minutes: before.minutes + 54 });
  });
});

describe("a comeback", () => {
  test("is a job of its own, linked, once; the first fitting did not hold", async () => {
    await closed(6);
    expect((await fittingsOf(6)).at(-1)?.outcome).toBe("held");
    const first = await findJob(6);
    if (!first) throw new Error("no job");
    const ids = await Promise.all(["t", "t"].map((token) => comeback(first, token, "dead again", later(90))));
    expect(ids[0]).toBe(ids[1]);
    expect(await comebacksOf(6)).toEqual([ids[0]]);
    expect((await fittingsOf(6)).at(-1)?.outcome).toBe("came-back");
    expect(await findJob(ids[0] ?? 0)).toMatchObject({
      comebackOf: 6,
      words: "dead again",
      stage: "probing",
    });
    const back = await findRecords({ ...everything, outcome: "came-back" });
    expect(back.map(({ id }) => id)).toContain(6);
  });
});

describe("a closing undone", () => {
  test("is no longer counted, and the repair is no longer said to have held", async () => {
    const start = await n("link", "open");
    await closed(6);
    await reopen(6, later(70));
    expect(await n("link", "open")).toBe(start);
    expect(await closureOf(6)).toBeNull();
    expect((await fittingsOf(6)).map(({ outcome }) => outcome)).toEqual(["withdrawn"]);
    expect((await trailOf(6)).map(({ what }) => what)).toContain("reopened");
    await closed(6);
    expect(await n("link", "open")).toBe(start + 1);
    expect((await fittingsOf(6)).at(-1)?.outcome).toBe("held");
  });

  test("a deleted comeback does not count; restored it counts again", async () => {
    await closed(6);
    const first = await findJob(6);
    if (!first) throw new Error("no job");
    const back = await comeback(first, "t", "dead again", later(90));
    await deleteJob(back, later(91));
    expect((await fittingsOf(6)).at(-1)?.outcome).toBe("held");
    await deleteJob(back, null);
    expect((await fittingsOf(6)).at(-1)?.outcome).toBe("came-back");
  });
});

describe("a fitting", () => {
  test("is pending until it holds, fails or is undone", async () => {
    await partsFitted(6, ["R1"], verdict, later(1));
    await reopen(6, later(2));
    await partsFitted(6, ["R1"], verdict, later(3));
    await repairFailed(
      6,
      [
        {
          id: "p1",
          jobId: 6,
          reading: { test: "airflow", key: "run", setting: "2", seen: "none" },
          takenAt: later(4),
        },
      ],
      later(4),
    );
    await partsFitted(6, ["M1"], verdict, later(5));
    expect(await partsFitted(6, ["X5"], verdict, later(6))).toMatchObject({ stage: "proof-due" });
    await reopen(6, later(6));
    await partsFitted(6, ["X5"], verdict, later(6));
    expect((await fittingsOf(6)).map(({ outcome }) => outcome)).toEqual([
      "withdrawn",
      "failed",
      "withdrawn",
      "pending",
    ]);
    expect((await readingsOf(6)).at(-1)?.id).toBe("p1");
  });
});
