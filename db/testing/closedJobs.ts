// A demo workshop in a folder of its own for each test, and jobs closed in it.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach } from "@jest/globals";
import { closeDatabase } from "../database.server";
import { closeJob, type StoredClosure } from "../repositories/closures.server";
import { openComeback, partsFitted } from "../repositories/jobs.server";
import { openDemoDatabase } from "./demoDatabase";

export const now = new Date("2026-11-24T10:05:00Z");
export const later = (minutes: number): Date => new Date(now.getTime() + minutes * 60_000);

let folder = "";
/** The folder of the present test. */
export const dataFolderNow = (): string => folder;

/** Opens the demo workshop in a new folder before each test of a suite, and removes it afterwards. */
export function useDemoShop(): void {
  beforeEach(async () => {
    folder = mkdtempSync(join(tmpdir(), "airway-memory-"));
    process.env.AIRWAY_DATA = folder;
    await openDemoDatabase(folder, now);
  });
  afterEach(async () => {
    await closeDatabase();
    rmSync(folder, { recursive: true, force: true });
  });
}

export const closing = (
  more: Partial<Omit<StoredClosure, "counted">> = {},
): Omit<StoredClosure, "counted"> => ({
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
export async function comeback(...asked: Parameters<typeof openComeback>): Promise<number> {
  const opened = await openComeback(...asked);
  if ("refusal" in opened) throw new Error(opened.refusal.code);
  return opened.id;
}

export const verdict = { p: 0.97, state: "settled", looks: 3, minutes: 8 } as const;
/** A job with parts fitted on a verdict, closed. */
export async function closed(id: number, more: Parameters<typeof closing>[0] = {}): Promise<void> {
  await partsFitted(id, ["R1"], verdict, later(30));
  await closeJob(id, closing(more));
}
