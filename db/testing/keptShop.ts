// The demo workshop with a note, a photo, a deleted reading and a closed job, in a folder of its own for each test.
import { createHash } from "node:crypto";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { beforeEach } from "@jest/globals";
import { PlainSqlite } from "../keeping/plainSqlite.server";
import { closeJob } from "../repositories/closures.server";
import { addNote } from "../repositories/notes.server";
import { addReading, deleteReading } from "../repositories/readings.server";
import { closing, dataFolderNow, now, useDemoShop } from "./closedJobs";

export const later = (hours: number) => new Date(now.getTime() + hours * 3_600_000);

/** Opens the shop in a new folder before each test of a suite, and removes it afterwards. */
export function useKeptShop(): void {
  useDemoShop();
  beforeEach(async () => {
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
    await closeJob(2, closing({ repairMinutes: null, closedAt: now }));
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
  const file = join(dataFolderNow(), "brought.file");
  writeFileSync(file, bytes);
  return file;
}
