import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { databaseFile, dataFolder } from "../databaseFile.server";
import { type CandidateFinding, candidateFindingSchema, lookInto } from "./candidate.server";
import { unpackShop } from "./shopBundle.server";

const folder = (): string => join(dataFolder(), "incoming");
const sqliteHead = "SQLite format 3\0";

/** The database that was brought and waits to be put in place; null where none does. */
export const incomingFile = (): string | null => {
  const file = databaseFile(folder());
  return existsSync(file) ? file : null;
};

const findingFile = (): string => join(folder(), "finding.json");

/** What was found in the database that waits, when it was brought in; a restore checks it again. Null if none waits. */
export function incomingFinding(): CandidateFinding | null {
  if (!incomingFile() || !existsSync(findingFile())) return null;
  return candidateFindingSchema.parse(JSON.parse(readFileSync(findingFile(), "utf8")));
}

export function dropIncoming(): void {
  rmSync(folder(), { recursive: true, force: true });
}

/** Lays a brought file aside, a bundle or a backup, and looks into it; nothing of the shop changes. */
export async function bringIn(
  bytes: Uint8Array,
): Promise<{ readonly problems: readonly string[] } | { readonly finding: CandidateFinding }> {
  dropIncoming();
  mkdirSync(folder(), { recursive: true });
  if (Buffer.from(bytes.subarray(0, sqliteHead.length)).toString("latin1") === sqliteHead)
    writeFileSync(databaseFile(folder()), bytes);
  else {
    const unpacked = await unpackShop(bytes, folder());
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
