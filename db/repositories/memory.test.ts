// What the database itself maintains: the audit trail nobody changes, the counts, the search; records exported and
// imported.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { JobRecord } from "@core/formats/recordFile";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { closeDatabase, database } from "../database.server";
import { databaseFile } from "../databaseFile.server";
import { RecordStaging } from "../importing/recordStaging.server";
import { everything, type RecordQuery } from "../recordQuery";
import { openDemoDatabase } from "../testing/demoDatabase";
import {
  closeJob,
  closureOf,
  faultCounts,
  lessons,
  measuredRepairs,
  type StoredClosure,
  setCounted,
} from "./closures.server";
import { trailOf } from "./events.server";
import {
  comebacksByCause,
  faultsBySymptom,
  minutesBySymptom,
  moneyByMonth,
  verdictSums,
} from "./figures.server";
import { fittingsOf } from "./fittings.server";
import {
  comebacksOf,
  deleteJob,
  findJob,
  listJobs,
  openComeback,
  partsFitted,
  reopen,
  repairFailed,
} from "./jobs.server";
import { addNote, deleteNote } from "./notes.server";
import { addReading, deleteReading, readingsOf } from "./readings.server";
import { countRecords, exportRecords, findRecords, matchText } from "./records.server";

let folder = "";
const now = new Date("2026-11-24T10:05:00Z");
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-memory-"));
  process.env.AIRWAY_DATA = folder;
  await openDemoDatabase(folder, now);
});
afterEach(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const closing = (more: Partial<Omit<StoredClosure, "counted">> = {}): Omit<StoredClosure, "counted"> => ({
  closure: {
    found: "=link melted behind the drain",
    fault: "R1.link:open",
    parts: ["R1"],
    cause: "not-found",
    learn: true,
  },
  kind: "link",
  mode: "open",
  family: "resistor ground",
  symptom: "some-speeds",
  looks: 3,
  minutes: 8,
  chartMinutes: 20,
  repairKind: "resistor",
  repairMinutes: 14,
  totalMinor: 12_300,
  closedAt: later(60),
  ...more,
});
/** Opens a comeback that is not refused. */
async function comeback(...asked: Parameters<typeof openComeback>): Promise<number> {
  const opened = await openComeback(...asked);
  if ("refusal" in opened) throw new Error(opened.refusal.code);
  return opened.id;
}

const verdict = { p: 0.97, state: "settled", looks: 3, minutes: 8 } as const;
/** A job with parts fitted on a verdict, closed. */
async function closed(id: number, more: Parameters<typeof closing>[0] = {}): Promise<void> {
  await partsFitted(id, ["R1"], verdict, later(30));
  await closeJob(id, closing(more));
}
const n = async (kind: string, mode: string, family = "resistor ground"): Promise<number> =>
  (await faultCounts(family)).ofFamily.find((own) => own.kind === kind && own.mode === mode)?.n ?? 0;

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
      "stage",
      "fitted",
      "fitting",
      "stage",
    ]);
    expect(lines[0]?.about).toMatchObject({ reading: { test: "look", at: "X5", seen: "melted" } });
    expect(lines[1]?.about.at).not.toBeNull();
    expect(lines[2]?.about.at).toBeNull();
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

/** Records staged, compared and, unless only checked, written to the shop. */
async function broughtIn(records: readonly JobRecord[], dry: boolean) {
  const [file, shop] = [join(folder, "staging.sqlite"), databaseFile(folder)];
  const fresh = await RecordStaging.create(file);
  await fresh.add(records);
  await fresh.close();
  return RecordStaging.use(file, shop, async (staging) => {
    const outcome = await staging.weigh();
    if (dry) return outcome;
    await staging.beginWriting(outcome);
    let after = 0;
    for (let done = await staging.writeBatch(0, now); done; done = await staging.writeBatch(after, now))
      after = done.last;
    return outcome;
  });
}

describe("the records", () => {
  const ids = async (query: Partial<RecordQuery>) =>
    (await findRecords({ ...everything, ...query })).map(({ id }) => id);

  test("are found by words of vehicle, complaint, finding and active notes; by circuit, fault, part, outcome", async () => {
    await closed(6);
    await addNote(
      { id: "n1", jobId: 5, readingId: null, words: "Äther smell, zitronengelb", takenAt: now },
      null,
    );
    expect(await ids({ words: "melted drain" })).toEqual([6]);
    expect(await ids({ words: "ferry" })).toContain(6);
    expect(await ids({ words: "zitronen" })).toEqual([5]);
    await deleteNote(5, "n1", later(1));
    expect(await ids({ words: "zitronen" })).toEqual([]);
    expect(await ids({ circuit: "whimbrel-four-speed", part: "resistor", fault: "link open" })).toContain(6);
    expect(await ids({ circuit: "whimbrel-four-speed", part: "motor", fault: "link open" })).toEqual([]);
    expect(await ids({ outcome: "open" })).not.toContain(6);
    expect(await ids({ outcome: "held" })).toContain(6);
    await deleteJob(6, later(2));
    expect(await ids({ words: "melted" })).toEqual([]);
    expect(await ids({ outcome: "deleted" })).toEqual([6]);
    expect((await listJobs()).some(({ id }) => id === 6)).toBe(false);
  });

  test.each(['"', "'", "* OR x", "a AND", "NEAR(", "-", "()", 'found:"x"', "%", "\u0000"])(
    "a search for %j is not treated as syntax",
    async (words) => {
      await expect(ids({ words })).resolves.toBeDefined();
    },
  );

  test("a search of punctuation alone finds everything", () => {
    expect(matchText(' - "" () ')).toBe("");
    expect(matchText('say "no"')).toBe('"say"* """no"""*');
  });

  test("come in pages, in any order, and the count is of them all", async () => {
    await closed(6);
    const all = await ids({ count: 100 });
    expect(await countRecords(everything)).toBe(all.length);
    const paged = [...(await ids({ count: 7 })), ...(await ids({ count: 100, from: 7 }))];
    expect(paged).toEqual(all);
    expect(await ids({ count: 100, down: false })).toEqual(all.toReversed());
    for (const order of ["closed", "vehicle", "circuit", "fault", "minutes", "money"] as const)
      expect(new Set(await ids({ order, count: 100 }))).toEqual(new Set(all));
    expect(await countRecords({ ...everything, fault: "link open", part: "resistor" })).toBe(
      (await ids({ fault: "link open", part: "resistor", count: 100 })).length,
    );
  });

  test("go to another shop: the same once, twice, or only checked; it learns nothing from them", async () => {
    await closed(6);
    const records = await exportRecords();
    const own = records.find(({ key }) => key === "demo-5" || key.startsWith("demo")) as JobRecord;
    expect(own).toBeDefined();
    const fresh: JobRecord[] = [
      ...records,
      { ...own, key: "elsewhere-1", vehicle: "pilot boat tender", words: "Dead on two." },
      { ...own, key: "elsewhere-2", circuit: "no-such-circuit" },
    ];
    const counts = await faultCounts("resistor ground");
    const jobs = await countRecords(everything);
    const outcome = { brought: 1, known: records.length, strange: ["no-such-circuit"] };
    expect(await broughtIn(fresh, true)).toEqual(outcome);
    expect(await countRecords(everything)).toBe(jobs);
    expect(await broughtIn(fresh, false)).toEqual(outcome);
    expect(await broughtIn(fresh, false)).toEqual({ ...outcome, brought: 0, known: records.length + 1 });
    expect(await countRecords(everything)).toBe(jobs + 1);
    expect(await faultCounts("resistor ground")).toEqual(counts);
    const [brought] = await findRecords({ ...everything, words: "pilot tender" });
    expect(brought).toMatchObject({ words: "Dead on two.", stage: "closed", fault: own.fault });
    expect((await closureOf(brought?.id ?? 0))?.counted).toBe(false);
    expect((await exportRecords()).find(({ key }) => key === "elsewhere-1")).toEqual({
      ...own,
      key: "elsewhere-1",
      vehicle: "pilot boat tender",
      words: "Dead on two.",
      cameBack: false,
    });
  });
});

describe("the statistics", () => {
  test("count what was closed, by hand", async () => {
    const before = {
      link: (await faultsBySymptom())
        .filter(({ kind }) => kind === "link")
        .reduce((sum, own) => sum + own.n, 0),
      causes: (await comebacksByCause()).find(({ cause }) => cause === "not-found") ?? {
        jobs: 0,
        comebacks: 0,
      },
      sums: (await verdictSums())[5] ?? { trials: 0, hits: 0 },
    };
    await closed(6);
    await closed(7, { minutes: 4, chartMinutes: null, symptom: "never-stops" });
    const first = await findJob(6);
    if (first) await comeback(first, "t", "again", later(90));
    const link = (await faultsBySymptom()).filter(({ kind }) => kind === "link");
    expect(link.reduce((sum, own) => sum + own.n, 0)).toBe(before.link + 2);
    expect((await comebacksByCause()).find(({ cause }) => cause === "not-found")).toEqual({
      cause: "not-found",
      jobs: before.causes.jobs + 2,
      comebacks: before.causes.comebacks + 1,
    });
    const sums = (await verdictSums())[5];
    expect([sums?.trials, sums?.hits]).toEqual([before.sums.trials + 2, before.sums.hits + 1]);
    const stops = (await minutesBySymptom()).find(({ symptom }) => symptom === "never-stops");
    expect(stops).toMatchObject({ chartJobs: expect.any(Number) });
    const november = (await moneyByMonth(now)).find(({ month }) => month === "2026-11");
    expect(november?.totalMinor).toBeGreaterThanOrEqual(24_600);
  });
});
