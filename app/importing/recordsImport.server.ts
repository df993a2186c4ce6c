import { existsSync } from "node:fs";
import { setTimeout as pause } from "node:timers/promises";
import { database } from "@db/database.server";
import { databaseFile, dataFolder } from "@db/databaseFile.server";
import { RecordStaging, type RecordsBroughtIn } from "@db/importing/recordStaging.server";
import { storageTrouble } from "@db/storageTrouble";
import { reportTrouble } from "../shell/log.server";
import { type Importer, importer } from "./importThread.server";
import { dropIncomingFile, incomingPath } from "./incomingFile.server";

/** How bringing records in stands. */
export type RecordsImport =
  | { readonly phase: "none" }
  | { readonly phase: "reading"; readonly share: number }
  /** Read, checked and weighed; nothing is in the shop. */
  | { readonly phase: "tried"; readonly outcome: RecordsBroughtIn }
  | { readonly phase: "writing"; readonly share: number; readonly outcome: RecordsBroughtIn }
  | { readonly phase: "stored"; readonly outcome: RecordsBroughtIn }
  | { readonly phase: "refused"; readonly problems: readonly string[] };

let state: RecordsImport = { phase: "none" };
let working: Importer | null = null;

export const recordsImport = (): RecordsImport => state;

/** Whether records are being written to the shop, which then must stay where it is. */
export const isWritingRecords = (): boolean => state.phase === "writing";

/** Whether a file is being read or written: another one waits. */
export const isImportingRecords = (): boolean => state.phase === "reading" || state.phase === "writing";

const shop = (): string => databaseFile(dataFolder());
const staging = (): string => incomingPath("records", "staging");

/**
 * Reads, checks and weighs the file of records that lies in its place; resolves once that is done or stopped.
 * @param store writes it to the shop then
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

/** Stops reading, and forgets what was read or tried; what is being written goes on to its end. */
export function dropRecords(): void {
  if (isWritingRecords()) return;
  working?.end();
  working = null;
  state = { phase: "none" };
  dropIncomingFile("records");
}

/** Pause between two batches, in which others write. */
const pauseMilliseconds = 10;

/** Writes what was tried to the shop, batch by batch; resolves once all of it is there. */
export async function writeRecords(): Promise<void> {
  if (state.phase !== "tried") return;
  const { outcome } = state;
  state = { phase: "writing", share: 0, outcome };
  await RecordStaging.use(staging(), shop(), (begun) => begun.beginWriting(outcome));
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
    reportTrouble(
      thrown,
      `Bringing records in stopped half way. It goes on when Airway starts again. ${why}`,
    );
    state = {
      phase: "refused",
      problems: [`It stopped half way and goes on when Airway starts again. ${why}`],
    };
  } finally {
    own.end();
  }
}

/** Goes on with what was being written when the server stopped; what was only read is thrown away. */
export async function resumeRecords(): Promise<void> {
  if (!existsSync(staging())) return dropIncomingFile("records");
  const outcome = await RecordStaging.use(staging(), shop(), (found) => found.writing());
  if (outcome === null) return dropIncomingFile("records");
  state = { phase: "writing", share: 0, outcome };
  await writeToTheEnd(outcome);
}
