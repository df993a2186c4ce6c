import { existsSync } from "node:fs";
import { setTimeout as pause } from "node:timers/promises";
import { database } from "@db/database.server";
import { databaseFile } from "@db/databaseFile.server";
import { dataFolder } from "@db/dataFolder.server";
import { RecordStaging, type RecordsBroughtIn } from "@db/importing/recordStaging.server";
import { storageTrouble } from "@db/storageTrouble";
import { reportTrouble } from "../shell/log.server";
import { type Importer, importer } from "./importProcess.server";
import { dropIncomingFile, incomingPath } from "./incomingFile.server";

/** The state of an import of records. */
export type RecordsImport =
  | { readonly phase: "none" }
  | { readonly phase: "reading"; readonly share: number }
  /** Read, checked and compared; nothing is in the shop yet. */
  | { readonly phase: "tried"; readonly outcome: RecordsBroughtIn }
  | { readonly phase: "writing"; readonly share: number; readonly outcome: RecordsBroughtIn }
  /** Writing failed part of the way: it can be resumed, and no other import starts until it is finished. */
  | { readonly phase: "interrupted"; readonly problem: string; readonly outcome: RecordsBroughtIn }
  | { readonly phase: "stored"; readonly outcome: RecordsBroughtIn }
  | { readonly phase: "refused"; readonly problems: readonly string[] };

let state: RecordsImport = { phase: "none" };
let working: Importer | null = null;

export const recordsImport = (): RecordsImport => state;

/** Whether only some records of a file are in the shop, so that the shop's database must not be replaced. */
export const isWritingRecords = (): boolean => state.phase === "writing" || state.phase === "interrupted";

/** Whether a file is being read or written, so that another one has to wait. */
export const isImportingRecords = (): boolean => state.phase === "reading" || isWritingRecords();

const shop = (): string => databaseFile(dataFolder());
const staging = (): string => incomingPath("records", "staging");

/**
 * Reads, checks and compares the file of records in its place; resolves once that is done or stopped.
 * @param store writes it to the shop afterwards
 */
export async function readRecords(store: boolean): Promise<void> {
  if (isImportingRecords()) return;
  state = { phase: "reading", share: 0 };
  const own = importer();
  working = own;
  try {
    const came = await own.run(
      "readRecords",
      { file: incomingPath("records"), staging: staging(), shop: shop() },
      (share) => {
        if (working === own) state = { phase: "reading", share };
      },
    );
    if (working !== own) return;
    state =
      "problems" in came
        ? { phase: "refused", problems: came.problems }
        : { phase: "tried", outcome: came.answer };
  } catch (thrown) {
    if (working === own) state = { phase: "refused", problems: [(thrown as Error).message] };
    return;
  } finally {
    own.end();
  }
  if (store) await writeRecords();
}

/** Stops reading, and discards what was read or checked; a write in progress goes on to its end. */
export function dropRecords(): void {
  if (isWritingRecords()) return;
  working?.end();
  working = null;
  state = { phase: "none" };
  dropIncomingFile("records");
}

/** Pause between two batches, in which others write. */
const pauseMilliseconds = 10;

/** Writes the checked records to the shop, or resumes an interrupted write; resolves once all of it is there. */
export async function writeRecords(): Promise<void> {
  if (state.phase !== "tried" && state.phase !== "interrupted") return;
  const { phase, outcome } = state;
  state = { phase: "writing", share: 0, outcome };
  if (phase === "tried") {
    try {
      await RecordStaging.use(staging(), shop(), (begun) => begun.beginWriting(outcome));
    } catch (thrown) {
      state = { phase: "refused", problems: [storageTrouble(thrown) ?? (thrown as Error).message] };
      return;
    }
  }
  await writeToTheEnd(outcome);
}

async function writeToTheEnd(outcome: RecordsBroughtIn): Promise<void> {
  const own = importer();
  try {
    const store = await database();
    let after = 0;
    for (;;) {
      const batch = { staging: staging(), shop: shop(), after };
      const came = await store.alone(() => own.run("writeRecords", batch));
      if ("problems" in came) throw new Error(came.problems.join("; "));
      if (came.answer === null) break;
      after = came.answer.last;
      state = { phase: "writing", share: came.answer.share, outcome };
      await pause(pauseMilliseconds);
    }
    state = { phase: "stored", outcome };
    dropIncomingFile("records");
  } catch (thrown) {
    const why = storageTrouble(thrown) ?? (thrown as Error).message;
    reportTrouble(thrown, `An import of records was interrupted. Resume it under Records, Import. ${why}`);
    state = { phase: "interrupted", problem: why, outcome };
  } finally {
    own.end();
  }
}

/** Resumes the write that was in progress when the server stopped; a file that was only read is discarded. */
export async function resumeRecords(): Promise<void> {
  if (!existsSync(staging())) return dropIncomingFile("records");
  const outcome = await RecordStaging.use(staging(), shop(), (found) => found.writing());
  if (outcome === null) return dropIncomingFile("records");
  state = { phase: "writing", share: 0, outcome };
  await writeToTheEnd(outcome);
}
