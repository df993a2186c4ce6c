// The demo workshop with a note, a photo, a deleted reading and a closed job, in a folder of its own for each test.
import { createHash } from "node:crypto";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach } from "@jest/globals";
import { closeDatabase } from "../database.server";
import { PlainSqlite } from "../keeping/plainSqlite.server";
import { closeJob } from "../repositories/closures.server";
import { addNote } from "../repositories/notes.server";
import { addReading, deleteReading } from "../repositories/readings.server";
import { openDemoDatabase } from "./demoDatabase";

let folder = "";
/** The data folder of the present test. */
export const shopFolder = (): string => folder;
export const now = new Date("2026-11-24T10:05:00Z");
export const later = (hours: number) => new Date(now.getTime() + hours * 3_600_000);

/** Opens the shop in a new folder before each test of a suite, and removes it afterwards. */
export function useKeptShop(): void {
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), "airway-keeping-"));
    process.env.AIRWAY_DATA = folder;
    await openDemoDatabase(folder, now);
    const photo = { width: 2, height: 1, jpeg: Buffer.from([0xff, 0xd8, 0, 1, 2, 255]) };
    await addNote(
      { id: "n1", jobId: 6, readingId: null, words: "burnt plug behind the drain", takenAt: now },
      photo,
    );
    await addReading({
      id: "r1",
      jobId: 6,
      reading: { test: "look", at: "X5", seen: "melted" },
      takenAt: now,
    });
    await deleteReading(6, "r1", later(1));
    await closeJob(2, {
      closure: {
        found: "link melted",
        fault: "R2.link:open",
        parts: ["R2"],
        cause: "not-found",
        learn: true,
      },
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
}

/** Every table that is kept or derived, with its number of rows and a hash of them all. */
export async function everyRow(file: string): Promise<Record<string, string>> {
  const own = await PlainSqlite.open(file);
  try {
    const tables = (await own.all("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name"))
      .map(({ name }) => String(name))
      .filter((name) => !/^sqlite_|^jobSearch_/.test(name));
    const found: Record<string, string> = {};
    for (const name of tables) {
      const rows = await own.all(`SELECT * FROM "${name}" ORDER BY 1`);
      found[name] = `${rows.length} ${createHash("sha256").update(JSON.stringify(rows)).digest("hex")}`;
    }
    return found;
  } finally {
    await own.close();
  }
}

/** Bytes as an uploaded file. */
export function asFile(bytes: Uint8Array): string {
  const file = join(folder, "brought.file");
  writeFileSync(file, bytes);
  return file;
}
