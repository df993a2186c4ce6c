// Importing records while others work: all of them or none, whatever happens meanwhile.

import { writeFileSync } from "node:fs";
import { database } from "@db/database.server";
import { databaseFile } from "@db/databaseFile.server";
import { dataFolder } from "@db/dataFolder.server";
import { RecordStaging } from "@db/importing/recordStaging.server";
import { everything } from "@db/recordQuery";
import { addReading } from "@db/repositories/readings.server";
import { countRecords, exportRecords } from "@db/repositories/records.server";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import type { JobRecord } from "../../core/formats/recordFile";
import { recordsCsv } from "../records/recordsCsv";
import * as recordsIn from "../routes/recordsIn";
import * as recordsInFile from "../routes/recordsInFile";
import { answer, closeDemoShop, openDemoShop } from "../testing/demoShop";
import { incomingPath, keepText } from "./incomingFile.server";
import { dropRecords, readRecords, recordsImport, resumeRecords, writeRecords } from "./recordsImport.server";

beforeEach(() => openDemoShop());
afterEach(async () => {
  dropRecords();
  await closeDemoShop();
});

/** Closed jobs of another shop, each on a vehicle of its own or one of three. */
async function elsewhere(count: number): Promise<JobRecord[]> {
  const [own] = await exportRecords();
  if (!own) throw new Error("the demo has no closed job");
  return Array.from({ length: count }, (_, i) => ({
    ...own,
    key: `elsewhere-${i}`,
    vehicle: i % 2 ? `harbour van ${i % 3}` : `van ${i}`,
    words: `case ${i}`,
  }));
}
const fileOf = async (count: number) => keepText("records", recordsCsv(await elsewhere(count)));

describe("bringing records in", () => {
  test("imports none if one does not fit, and says which", async () => {
    const before = await countRecords(everything);
    const records = await elsewhere(1200);
    keepText("records", recordsCsv(records).replace(/case 1100,.*?,link/s, "case 1100,x,link"));
    await readRecords(true);
    const state = recordsImport();
    expect(state.phase).toBe("refused");
    expect("problems" in state && state.problems.join(" ")).toMatch(/^row 1102, found: /);
    expect(await countRecords(everything)).toBe(before);
  });

  test("brings the work list of each job, so that it is found by what was worked on", async () => {
    const [record] = await elsewhere(1);
    const works = [
      { part: "M1", what: "blower motor M1", done: "renewed", number: "P-77", round: 1, state: "done" },
      { what: "tiller clip", done: "carried-over", round: 1, state: "done" },
    ] as const;
    keepText("records", recordsCsv([{ ...(record as JobRecord), works: [...works] }]));
    await readRecords(true);
    expect(recordsImport().phase).toBe("stored");
    const own = (await exportRecords()).find(({ key }) => key === "elsewhere-0");
    expect(own?.works).toEqual(works);
    expect(await countRecords({ ...everything, words: "tiller" })).toBe(1);
  });

  test("lets others write between two batches, and adds each vehicle once", async () => {
    const before = await countRecords(everything);
    await fileOf(1500);
    await readRecords(false);
    expect(recordsImport()).toMatchObject({ phase: "tried", outcome: { brought: 1500, known: 0 } });
    const order: string[] = [];
    const writing = writeRecords().then(() => order.push("all records"));
    const reading = addReading({
      id: "meanwhile",
      jobId: 6,
      reading: { test: "look", at: "X5", seen: "melted" },
      takenAt: new Date(),
    }).then((refusal) => {
      expect(refusal).toBeNull();
      order.push("a reading");
    });
    await Promise.all([writing, reading]);
    expect(order).toEqual(["a reading", "all records"]);
    expect(recordsImport().phase).toBe("stored");
    expect(await countRecords(everything)).toBe(before + 1500);
    const { sequelize } = await database();
    const [vehicles] = await sequelize.query(
      "SELECT COUNT(*) AS n FROM vehicles WHERE label LIKE 'harbour van %'",
    );
    expect(vehicles).toEqual([{ n: 3 }]);
  });

  test("continues after a stop in the middle, and imports nothing twice", async () => {
    const before = await countRecords(everything);
    await fileOf(800);
    await readRecords(false);
    const state = recordsImport();
    if (state.phase !== "tried") throw new Error(state.phase);
    // The server stops after one batch.
    await RecordStaging.use(
      incomingPath("records", "staging"),
      databaseFile(dataFolder()),
      async (staging) => {
        await staging.beginWriting(state.outcome);
        await staging.writeBatch(0, new Date());
      },
    );
    const half = await countRecords(everything);
    expect(half).toBeGreaterThan(before);
    expect(half).toBeLessThan(before + 800);
    await resumeRecords();
    expect(recordsImport()).toMatchObject({ phase: "stored", outcome: { brought: 800 } });
    expect(await countRecords(everything)).toBe(before + 800);
    await resumeRecords();
    expect(await countRecords(everything)).toBe(before + 800);
  });

  test("an interrupted write blocks another file and discarding, and can be resumed to its end", async () => {
    const before = await countRecords(everything);
    await fileOf(600);
    await readRecords(false);
    const { sequelize } = await database();
    // The disk fails from the three hundredth job on.
    await sequelize.query(`CREATE TRIGGER failing BEFORE INSERT ON jobs WHEN new.formToken = 'elsewhere-300'
      BEGIN SELECT RAISE(ABORT, 'no more'); END`);
    await writeRecords();
    expect(recordsImport().phase).toBe("interrupted");
    const half = await countRecords(everything);
    expect(half).toBeGreaterThan(before);
    expect(half).toBeLessThan(before + 600);
    dropRecords();
    expect((await answer(recordsIn.action, { intent: "try", text: "key" })).status).toBe(409);
    await sequelize.query("DROP TRIGGER failing");
    await writeRecords();
    expect(recordsImport()).toMatchObject({ phase: "stored", outcome: { brought: 600 } });
    expect(await countRecords(everything)).toBe(before + 600);
  });

  test("at the next start discards a file that was only read", async () => {
    const before = await countRecords(everything);
    await fileOf(20);
    await readRecords(false);
    await resumeRecords();
    expect(await countRecords(everything)).toBe(before);
  });
});

describe("the page", () => {
  test("receives a file, checks it, and imports it when told to", async () => {
    const before = await countRecords(everything);
    const body = recordsCsv(await elsewhere(3));
    const request = new Request("http://127.0.0.1/records/in/file", { method: "POST", body });
    await recordsInFile.action({ request } as never);
    for (let again = 0; again < 200 && recordsIn.loader().state.phase === "reading"; again++)
      await new Promise((resolve) => setTimeout(resolve, 20));
    expect(recordsIn.loader().state).toMatchObject({ phase: "tried", outcome: { brought: 3 } });
    expect(await countRecords(everything)).toBe(before);
    await answer(recordsIn.action, { intent: "write" });
    for (let again = 0; again < 200 && recordsIn.loader().state.phase !== "stored"; again++)
      await new Promise((resolve) => setTimeout(resolve, 20));
    expect(await countRecords(everything)).toBe(before + 3);
  });

  test("discards what was checked", async () => {
    writeFileSync(incomingPath("records"), recordsCsv(await elsewhere(2)));
    await readRecords(false);
    await answer(recordsIn.action, { intent: "drop" });
    expect(recordsIn.loader().state).toEqual({ phase: "none" });
    expect((await answer(recordsIn.action, { intent: "write" })).status).toBe(200);
    expect(recordsIn.loader().state).toEqual({ phase: "none" });
  });
});
