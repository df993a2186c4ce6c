// Backups and restores: nothing is lost, checking changes nothing, and refusals name the place.
import { copyFileSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { databaseFile } from "../databaseFile.server";
import { findJob, listJobs } from "../repositories/jobs.server";
import { addReading, readingsOf } from "../repositories/readings.server";
import { dataFolderNow, now } from "../testing/closedJobs";
import { everyRow, later, useKeptShop } from "../testing/keptShop";
import {
  backUp,
  backupDue,
  backupFile,
  backupWarning,
  copyToSecondFolder,
  listBackups,
} from "./backup.server";
import { lookInto } from "./candidate.server";
import { PlainSqlite } from "./plainSqlite.server";
import { restore } from "./restore.server";

useKeptShop();

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
    const before = await everyRow(databaseFile(dataFolderNow()));
    await addReading({
      id: "r2",
      jobId: 6,
      reading: { test: "look", at: "F7", seen: "blown" },
      takenAt: now,
    });
    const changed = await everyRow(databaseFile(dataFolderNow()));
    await lookInto(backupFile(backup.name) ?? "");
    expect(await everyRow(databaseFile(dataFolderNow()))).toEqual(changed);
    const kept = await restore(backupFile(backup.name) ?? "", later(2));
    expect((await readingsOf(6)).some(({ id }) => id === "r2")).toBe(false);
    expect(await everyRow(databaseFile(dataFolderNow()))).toEqual(before);
    await restore(backupFile(kept.name) ?? "", later(3));
    expect((await readingsOf(6)).some(({ id }) => id === "r2")).toBe(true);
  });

  test("that is damaged, or no database, is refused and nothing changes", async () => {
    const backup = await backUp(later(1));
    const file = backupFile(backup.name) ?? "";
    const bytes = readFileSync(file);
    bytes.fill(0x5a, 8192, 40_000);
    const damaged = join(dataFolderNow(), "damaged.sqlite");
    writeFileSync(damaged, bytes);
    await expect(restore(damaged, later(2))).rejects.toThrow();
    const text = join(dataFolderNow(), "text.sqlite");
    writeFileSync(text, "these are the notes of last week");
    expect((await lookInto(text)).faults.join()).toMatch(/not an Airway database/);
    expect(await findJob(6)).not.toBeNull();
    expect(backupFile("../airway.sqlite")).toBeNull();
  });

  test("of a later Airway is refused with that reason", async () => {
    const file = join(dataFolderNow(), "later.sqlite");
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
    const here = await idsIn(databaseFile(dataFolderNow()));
    expect([...before, ...here].sort()).toEqual([...acknowledged].sort());
    expect(new Set([...before, ...here]).size).toBe(60);
  });

  const spoiltCopy = async (sql: string): Promise<string> => {
    const file = join(dataFolderNow(), "spoilt.sqlite");
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
    const before = await everyRow(databaseFile(dataFolderNow()));
    await expect(restore(file, later(2))).rejects.toThrow(fault);
    expect(await everyRow(databaseFile(dataFolderNow()))).toEqual(before);
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
    process.env.AIRWAY_BACKUP_FOLDER = join(dataFolderNow(), "elsewhere");
    try {
      const backup = await backUp(later(1));
      await copyToSecondFolder(backup);
      const copy = join(dataFolderNow(), "elsewhere", backup.name);
      expect(readFileSync(copy)).toEqual(readFileSync(backupFile(backup.name) ?? ""));
      expect((await lookInto(copy)).faults).toEqual([]);
      process.env.AIRWAY_BACKUP_FOLDER = join(dataFolderNow(), "airway.sqlite");
      await expect(copyToSecondFolder(backup)).rejects.toThrow(/could not be copied to/);
      await restore(backupFile(backup.name) ?? "", later(2));
      expect(listBackups()).toHaveLength(2);
    } finally {
      delete process.env.AIRWAY_BACKUP_FOLDER;
    }
  });

  test("restored by two people at once is restored twice, each time completely", async () => {
    const [one, other] = [await backUp(later(1)), await backUp(later(2))];
    const whole = await everyRow(databaseFile(dataFolderNow()));
    await Promise.all([
      restore(backupFile(one.name) ?? "", later(3)),
      restore(backupFile(other.name) ?? "", later(4)),
    ]);
    expect(await everyRow(databaseFile(dataFolderNow()))).toEqual(whole);
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
