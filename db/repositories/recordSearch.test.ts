// Records searched, exported and imported, and the statistics made from them.

import { join } from "node:path";
import type { JobRecord } from "@core/formats/recordFile";
import { describe, expect, test } from "@jest/globals";
import { databaseFile } from "../databaseFile.server";
import { RecordStaging } from "../importing/recordStaging.server";
import { everything, type RecordQuery } from "../recordQuery";
import { closed, comeback, dataFolderNow, later, now, useDemoShop } from "../testing/closedJobs";
import { closureOf, faultCounts } from "./closures.server";
import {
  comebacksByCause,
  faultsBySymptom,
  minutesBySymptom,
  moneyByMonth,
  verdictSums,
} from "./figures.server";
import { deleteJob, findJob, listJobs } from "./jobs.server";
import { addNote, deleteNote } from "./notes.server";
import { countRecords, exportRecords, findRecords, matchText } from "./records.server";

useDemoShop();

/** Records staged, compared and, unless only checked, written to the shop. */
async function broughtIn(records: readonly JobRecord[], dry: boolean) {
  const [file, shop] = [join(dataFolderNow(), "staging.sqlite"), databaseFile(dataFolderNow())];
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
