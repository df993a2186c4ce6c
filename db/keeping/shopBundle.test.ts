// The bundle of the whole shop: exported and imported without loss, and refused by its place.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { QueryTypes } from "sequelize";
import { closeDatabase, database } from "../database.server";
import { databaseFile } from "../databaseFile.server";
import { everything } from "../recordQuery";
import { addReading, readingsOf } from "../repositories/readings.server";
import { findRecords } from "../repositories/records.server";
import { dataFolderNow, now } from "../testing/closedJobs";
import { asFile, everyRow, later, useKeptShop } from "../testing/keptShop";
import { bringIn, dropIncoming, incomingFile } from "./incoming.server";
import { restore } from "./restore.server";
import { shopBundle, unpackShop } from "./shopBundle.server";

useKeptShop();

describe("the bundle of the whole shop", () => {
  test("imported into an empty folder is the same shop, row for row, and makes the same bundle byte for byte", async () => {
    const bundle = await shopBundle();
    const empty = mkdtempSync(join(tmpdir(), "airway-empty-"));
    const unpacked = await unpackShop(bundle, empty);
    if ("problems" in unpacked) throw new Error(unpacked.problems.join());
    expect(await everyRow(unpacked.value.file)).toEqual(await everyRow(databaseFile(dataFolderNow())));
    await closeDatabase();
    process.env.AIRWAY_DATA = empty;
    expect(Buffer.from(await shopBundle()).equals(Buffer.from(bundle))).toBe(true);
    // What is derived from the rows is there too: the search, the counts, the picture.
    await database();
    expect((await findRecords({ ...everything, words: "drain" })).map(({ id }) => id)).toContain(6);
    const store = await database();
    const [photo] = await store.sequelize.query<{ jpeg: Buffer }>("SELECT jpeg FROM photos", {
      type: QueryTypes.SELECT,
    });
    expect([...(photo?.jpeg ?? [])]).toEqual([0xff, 0xd8, 0, 1, 2, 255]);
    rmSync(empty, { recursive: true, force: true });
  });

  test("is stored aside and inspected, then replaces the shop", async () => {
    const bundle = await shopBundle();
    await addReading({
      id: "r3",
      jobId: 6,
      reading: { test: "look", at: "F7", seen: "blown" },
      takenAt: now,
    });
    const brought = await bringIn(asFile(bundle));
    expect("finding" in brought && brought.finding.faults).toEqual([]);
    expect((await readingsOf(6)).some(({ id }) => id === "r3")).toBe(true);
    await restore(incomingFile() ?? "", later(2));
    expect((await readingsOf(6)).some(({ id }) => id === "r3")).toBe(false);
    dropIncoming();
    expect(incomingFile()).toBeNull();
  });

  const spoilt = async (change: (files: Record<string, Uint8Array>) => void) => {
    const files = unzipSync(await shopBundle());
    change(files);
    const brought = await bringIn(asFile(zipSync(files)));
    expect(incomingFile()).toBeNull();
    return "problems" in brought ? brought.problems.join("; ") : brought.finding.faults.join("; ");
  };

  test.each<[string, (files: Record<string, Uint8Array>) => void, RegExp]>([
    [
      "without its contents",
      (files) => delete files["airway-shop.json"],
      /airway-shop\.json is missing from the bundle/,
    ],
    [
      "without a table",
      (files) => delete files["tables/jobs.jsonl"],
      /tables\/jobs\.jsonl is missing from the bundle/,
    ],
    [
      "short of a row",
      (files) => {
        files["tables/readings.jsonl"] = strToU8(
          strFromU8(files["tables/readings.jsonl"] ?? new Uint8Array())
            .split("\n")
            .slice(1)
            .join("\n"),
        );
      },
      /tables\/readings\.jsonl: expected \d+ rows, got \d+/,
    ],
    [
      "without a picture",
      (files) => {
        delete files["blobs/photos-0-jpeg.bin"];
      },
      /blobs\/photos-0-jpeg\.bin is not in the bundle/,
    ],
    [
      "with a date that is none",
      (files) => {
        const rows = strFromU8(files["tables/readings.jsonl"] ?? new Uint8Array());
        files["tables/readings.jsonl"] = strToU8(rows.replace(/20\d\d-\d\d-\d\d [^"]*/, "yesterday"));
      },
      /^tables\/readings\.jsonl, row 1, takenAt: is not a date and time$/,
    ],
    [
      "with a reading of no known test",
      (files) => {
        const rows = strFromU8(files["tables/readings.jsonl"] ?? new Uint8Array()).split("\n");
        rows[2] = (rows[2] ?? "").replace(/\\"test\\":\\"\w+/, '\\"test\\":\\"guess');
        files["tables/readings.jsonl"] = strToU8(rows.join("\n"));
      },
      /^tables\/readings\.jsonl, row 3, body: /,
    ],
    [
      "of a later Airway",
      (files) => {
        const text = strFromU8(files["airway-shop.json"] ?? new Uint8Array());
        files["airway-shop.json"] = strToU8(text.replace(/"schema": "[^"]*"/, '"schema": "999-tomorrow"'));
      },
      /later Airway; update Airway first/,
    ],
    [
      "whose job is of no vehicle",
      (files) => {
        const rows = strFromU8(files["tables/vehicles.jsonl"] ?? new Uint8Array()).split("\n");
        files["tables/vehicles.jsonl"] = strToU8(rows.slice(1).join("\n"));
        const contents = strFromU8(files["airway-shop.json"] ?? new Uint8Array());
        files["airway-shop.json"] = strToU8(
          contents.replace(
            /("name": "vehicles",[^}]*"rows": )(\d+)/s,
            (_, head: string, n: string) => `${head}${Number(n) - 1}`,
          ),
        );
      },
      /names a vehicles that is not there/,
    ],
  ])("%s is refused with its place", async (_, change, message) => {
    expect(await spoilt(change)).toMatch(message);
  });

  test("that would fill the memory is refused before any of it is unpacked", async () => {
    // 60 MB of zeros, which compress to a thousandth.
    const bomb = zipSync({ "tables/jobs.jsonl": new Uint8Array(60_000_000) }, { level: 9 });
    expect(bomb.length).toBeLessThan(100_000);
    const before = process.memoryUsage().arrayBuffers;
    const brought = await bringIn(asFile(bomb));
    expect("problems" in brought && brought.problems[0]).toMatch(/unpacks to more than any Airway file/);
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(20_000_000);
  });

  test("that is not a zip is refused", async () => {
    const brought = await bringIn(asFile(strToU8("hello")));
    expect("problems" in brought && brought.problems[0]).toMatch(/^This is not a zip file/);
  });
});
