import {
  closeSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import { databaseFile } from "../databaseFile.server";
import { dataFolder } from "../dataFolder.server";
import { type CandidateFinding, candidateFindingSchema, lookInto } from "./candidate.server";
import { unpackShop } from "./shopBundle.server";

const folder = (): string => join(dataFolder(), "incoming");
const sqliteHead = "SQLite format 3\0";

/** The uploaded database waiting to replace the shop's; null if there is none. */
export const incomingFile = (): string | null => {
  const file = databaseFile(folder());
  return existsSync(file) ? file : null;
};

const findingFile = (): string => join(folder(), "finding.json");

/** What was found in the waiting database at upload; a restore checks it again. Null if none waits. */
export function incomingFinding(): CandidateFinding | null {
  if (!incomingFile() || !existsSync(findingFile())) return null;
  return candidateFindingSchema.parse(JSON.parse(readFileSync(findingFile(), "utf8")));
}

export function dropIncoming(): void {
  rmSync(folder(), { recursive: true, force: true });
}

/** Whether a file begins as SQLite's files do. */
function isSqlite(file: string): boolean {
  const head = Buffer.alloc(sqliteHead.length);
  const handle = openSync(file, "r");
  try {
    readSync(handle, head);
  } finally {
    closeSync(handle);
  }
  return head.toString("latin1") === sqliteHead;
}

/**
 * Inspects an uploaded bundle or backup in a copy, which then waits to replace the shop's database; nothing of the
 * shop changes.
 */
export async function bringIn(
  file: string,
): Promise<{ readonly problems: readonly string[] } | { readonly finding: CandidateFinding }> {
  dropIncoming();
  mkdirSync(folder(), { recursive: true });
  if (isSqlite(file)) copyFileSync(file, databaseFile(folder()));
  else {
    const unpacked = await unpackShop(readFileSync(file), folder());
    if ("problems" in unpacked) {
      dropIncoming();
      return unpacked;
    }
  }
  const finding = await lookInto(databaseFile(folder()));
  if (finding.faults.length > 0) dropIncoming();
  else writeFileSync(findingFile(), JSON.stringify(finding));
  return { finding };
}
