// Backups, restores and the bundle of the whole shop: nothing is lost, checking changes nothing, and refusals name the
// place.
import { createHash } from "node:crypto";
import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { QueryTypes } from "sequelize";
import { closeDatabase, database } from "../database.server";
import { databaseFile } from "../databaseFile.server";
import { everything } from "../recordQuery";
import { closeJob } from "../repositories/closures.server";
import { findJob, listJobs } from "../repositories/jobs.server";
import { addNote } from "../repositories/notes.server";
import { addReading, deleteReading, readingsOf } from "../repositories/readings.server";
import { findRecords } from "../repositories/records.server";
import { openDemoDatabase } from "../testing/demoDatabase";
import {
  backUp,
  backupDue,
  backupFile,
  backupWarning,
  copyToSecondFolder,
  listBackups,
} from "./backup.server";
import { lookInto } from "./candidate.server";
import { bringIn, dropIncoming, incomingFile } from "./incoming.server";
import { PlainSqlite } from "./plainSqlite.server";
import { restore } from "./restore.server";
import { shopBundle, unpackShop } from "./shopBundle.server";

let folder = "";
const now = new Date("2026-11-24T10:05:00Z");
const later = (hours: number) => new Date(now.getTime() + hours * 3_600_000);

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "airway-keeping-"));
  process.env.AIRWAY_DATA = folder;
  await openDemoDatabase(folder, now);
  const photo = { width: 2, height: 1, jpeg: Buffer.from([0xff, 0xd8, 0, 1, 2, 255]) };
  await addNote(
    { id: "n1", jobId: 6, readingId: null, words: "burnt plug behind the drain", takenAt: now },
    photo,
  );
  await addReading({ id: "r1", jobId: 6, reading: { test: "look", at: "X5", seen: "melted" }, takenAt: now });
  await deleteReading(6, "r1", later(1));
  await closeJob(2, {
    closure: { found: "link melted", fault: "R2.link:open", parts: ["R2"], cause: "not-found", learn: true },
    kind: "link",
    mode: "open",
    family: "resistor ground",
    symptom: "some-speeds",
    looks: 3,
    minutes: 7.5,
    chartMinutes: 21.25,
    repairKind: "resistor",
    repairMinutes: null,
    totalMinor: 12_300,
    closedAt: now,
  });
});

afterEach(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

/** Every table that is kept or derived, with its number of rows and a hash of them all. */
async function everyRow(file: string): Promise<Record<string, string>> {
  const own = await PlainSqlite.open(file);
  try {
    const tables = (await own.all("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name"))
      .map(({ name }) => String(name))
      .filter((name) => !/^sqlite_|^jobSearch_/.test(name));
    return Object.fromEntries(
      await Promise.all(
        tables.map(async (name) => {
          const rows = await own.all(`SELECT * FROM "${name}" ORDER BY 1`);
          return [name, `${rows.length} ${createHash("sha256").update(JSON.stringify(rows)).digest("hex")}`];
        }),
      ),
    );
  } finally {
    await own.close();
  }
}

/** Bytes as an uploaded file. */
function asFile(bytes: Uint8Array): string {
  const file = join(folder, "brought.file");
  writeFileSync(file, bytes);
  return file;
}

describe("a backup", () => {
  test("is made while the shop works, is sound, and holds what was stored before it", async () => {
    const writes = Array.from({ length: 30 }, (_, i) =>
      addReading({ id: `w${i}`, jobId: 6, reading: { test: "look", at: "X5", seen: "clean" }, takenAt: now }),
    );
    const backup = await backUp(later(1));
    await Promise.all(writes);
    expect(backupFile(backup.name)).not.toBeNull();
    const found = await lookInto(backupFile(backup.name) ?? "");
    expect(found.faults).toEqual([]);
    expect(found.jobs).toBe((await listJobs()).length);
    expect(listBackups().map(({ name }) => name)).toEqual([backup.name]);
  });

  test("is restored to its content, after a backup of the present state; inspecting it changes nothing", async () => {
    const backup = await backUp(later(1));
    const before = await everyRow(databaseFile(folder));
    await addReading({
      id: "r2",
      jobId: 6,
      reading: { test: "look", at: "F7", seen: "blown" },
      takenAt: now,
    });
    const changed = await everyRow(databaseFile(folder));
    await lookInto(backupFile(backup.name) ?? "");
    expect(await everyRow(databaseFile(folder))).toEqual(changed);
    const kept = await restore(backupFile(backup.name) ?? "", later(2));
    expect((await readingsOf(6)).some(({ id }) => id === "r2")).toBe(false);
    expect(await everyRow(databaseFile(folder))).toEqual(before);
    await restore(backupFile(kept.name) ?? "", later(3));
    expect((await readingsOf(6)).some(({ id }) => id === "r2")).toBe(true);
  });

  test("that is damaged, or no database, is refused and nothing changes", async () => {
    const backup = await backUp(later(1));
    const file = backupFile(backup.name) ?? "";
    const bytes = readFileSync(file);
    bytes.fill(0x5a, 8192, 40_000);
    const damaged = join(folder, "damaged.sqlite");
    writeFileSync(damaged, bytes);
    await expect(restore(damaged, later(2))).rejects.toThrow();
    const text = join(folder, "text.sqlite");
    writeFileSync(text, "these are the notes of last week");
    expect((await lookInto(text)).faults.join()).toMatch(/not an Airway database/);
    expect(await findJob(6)).not.toBeNull();
    expect(backupFile("../airway.sqlite")).toBeNull();
  });

  test("of a later Airway is refused with that reason", async () => {
    const file = join(folder, "later.sqlite");
    copyFileSync(backupFile((await backUp(later(1))).name) ?? "", file);
    const own = await PlainSqlite.open(file);
    await own.run("INSERT INTO SequelizeMeta (name) VALUES ('999-tomorrow')");
    await own.close();
    expect((await lookInto(file)).faults).toEqual([
      "it was made by a later version of Airway (999-tomorrow); update Airway first",
    ]);
  });

  test("is restored while readings are entered: every acknowledged one is in the backup made before, or in the shop", async () => {
    const backup = await backUp(later(1));
    const acknowledged: string[] = [];
    const writes = Array.from({ length: 60 }, async (_, i) => {
      await new Promise((resolve) => setTimeout(resolve, 5 * i));
      await addReading({
        id: `during-${i}`,
        jobId: 6,
        reading: { test: "look", at: "X5", seen: "clean" },
        takenAt: now,
      });
      acknowledged.push(`during-${i}`);
    });
    const kept = await restore(backupFile(backup.name) ?? "", later(2));
    await Promise.all(writes);
    const idsIn = async (file: string) => {
      const own = await PlainSqlite.open(file);
      const rows = await own.all("SELECT id FROM readings WHERE id LIKE 'during-%'");
      await own.close();
      return rows.map(({ id }) => String(id));
    };
    const before = await idsIn(backupFile(kept.name) ?? "");
    const here = await idsIn(databaseFile(folder));
    expect([...before, ...here].sort()).toEqual([...acknowledged].sort());
    expect(new Set([...before, ...here]).size).toBe(60);
  });

  const spoiltCopy = async (sql: string): Promise<string> => {
    const file = join(folder, "spoilt.sqlite");
    copyFileSync(backupFile((await backUp(later(1))).name) ?? "", file);
    const own = await PlainSqlite.open(file);
    await own.run(sql);
    await own.close();
    return file;
  };

  test.each<[string, string, RegExp]>([
    [
      "with a trigger of its own",
      "CREATE TRIGGER hidden AFTER INSERT ON readings BEGIN UPDATE readings SET body = '{}'; END",
      /trigger hidden is not part of an Airway database/,
    ],
    [
      "with a view of its own",
      "CREATE VIEW spy AS SELECT * FROM jobs",
      /view spy is not part of an Airway database/,
    ],
    ["without a table", "DROP TABLE estimates", /table estimates/],
    ["without a trigger", "DROP TRIGGER eventsUPDATE", /trigger eventsUPDATE is missing/],
    ["without a column", "ALTER TABLE planNotes DROP COLUMN words", /table planNotes/],
    [
      "with a date that is none",
      "UPDATE jobs SET createdAt = 'last week' WHERE id = 4",
      /jobs, row 4, createdAt: is not a date and time/,
    ],
    [
      "with a reading that is none",
      "UPDATE readings SET body = '{\"test\":\"guess\"}' WHERE id = 'r1'",
      /readings, row \d+, body: /,
    ],
    ["with a stage that is none", "UPDATE jobs SET stage = 'asleep' WHERE id = 4", /jobs, row 4, stage: /],
  ])("%s is refused, and nothing changes", async (_, sql, fault) => {
    const file = await spoiltCopy(sql);
    const before = await everyRow(databaseFile(folder));
    await expect(restore(file, later(2))).rejects.toThrow(fault);
    expect(await everyRow(databaseFile(folder))).toEqual(before);
    expect(await findJob(4)).not.toBeNull();
  });

  test("with one flipped bit is recognised by its checksum", async () => {
    const file = backupFile((await backUp(later(1))).name) ?? "";
    const bytes = readFileSync(file);
    // In the words of a note, where SQLite's own check sees nothing.
    const place = bytes.indexOf("burnt plug behind the drain");
    bytes[place] = (bytes[place] ?? 0) ^ 1;
    writeFileSync(file, bytes);
    expect((await lookInto(file)).faults).toEqual([
      "its checksum does not match; the file was changed or damaged",
    ]);
    await expect(restore(file, later(2))).rejects.toThrow(/checksum/);
  });

  test("is copied to a second folder; a failed copy is reported, and stops neither a backup nor a restore", async () => {
    process.env.AIRWAY_BACKUP_FOLDER = join(folder, "elsewhere");
    try {
      const backup = await backUp(later(1));
      await copyToSecondFolder(backup);
      const copy = join(folder, "elsewhere", backup.name);
      expect(readFileSync(copy)).toEqual(readFileSync(backupFile(backup.name) ?? ""));
      expect((await lookInto(copy)).faults).toEqual([]);
      process.env.AIRWAY_BACKUP_FOLDER = join(folder, "airway.sqlite");
      await expect(copyToSecondFolder(backup)).rejects.toThrow(/could not be copied to/);
      await restore(backupFile(backup.name) ?? "", later(2));
      expect(listBackups()).toHaveLength(2);
    } finally {
      delete process.env.AIRWAY_BACKUP_FOLDER;
    }
  });

  test("restored by two people at once is restored twice, each time completely", async () => {
    const [one, other] = [await backUp(later(1)), await backUp(later(2))];
    const whole = await everyRow(databaseFile(folder));
    await Promise.all([
      restore(backupFile(one.name) ?? "", later(3)),
      restore(backupFile(other.name) ?? "", later(4)),
    ]);
    expect(await everyRow(databaseFile(folder))).toEqual(whole);
    expect(await findJob(4)).not.toBeNull();
  });

  test("dated in the future by a wrong clock stops no later one", () => {
    expect(backupDue(later(1000), now, "UTC")).toBe(true);
  });

  test("that is more than two days old causes a warning", () => {
    expect(backupWarning(now, later(47))).toBeNull();
    expect(backupWarning(now, later(73))).toBe("The newest verified backup is 3 days old.");
    expect(backupWarning(null, now)).toBe("There is no verified backup yet.");
  });

  test("is due at night by the shop's clock, if there is none, and if the last is older than a day", () => {
    const at = (text: string) => new Date(`2026-11-25T${text}:00Z`);
    expect(backupDue(null, at("12:00"), "UTC")).toBe(true);
    expect(backupDue(at("00:30"), at("03:10"), "UTC")).toBe(true);
    expect(backupDue(at("03:10"), at("04:10"), "UTC")).toBe(false);
    expect(backupDue(at("00:30"), at("02:10"), "Europe/Berlin")).toBe(false);
    expect(backupDue(at("00:05"), at("02:10"), "Europe/Berlin")).toBe(true);
    expect(backupDue(new Date("2026-11-24T08:00:00Z"), at("12:00"), "UTC")).toBe(true);
  });
});

describe("the bundle of the whole shop", () => {
  test("imported into an empty folder is the same shop, row for row, and makes the same bundle byte for byte", async () => {
    const bundle = await shopBundle();
    const empty = mkdtempSync(join(tmpdir(), "airway-empty-"));
    const unpacked = await unpackShop(bundle, empty);
    if ("problems" in unpacked) throw new Error(unpacked.problems.join());
    expect(await everyRow(unpacked.value.file)).toEqual(await everyRow(databaseFile(folder)));
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
