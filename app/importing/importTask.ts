import type { RecordsBroughtIn } from "@db/importing/recordStaging.server";
import type { CandidateFinding } from "@db/keeping/candidate.server";
import type { Bundled } from "../shelf/readBundle.server";

/** Work on a file from elsewhere, done outside the server's process: the input and the final answer of each task. */
export interface ImportTasks {
  /** Reads and checks records into a staging file, and compares them with the shop. */
  readonly readRecords: {
    readonly takes: { readonly file: string; readonly staging: string; readonly shop: string };
    readonly answers: RecordsBroughtIn;
  };
  /** Writes the next batch of staged records to the shop. The answer is null when none are left. */
  readonly writeRecords: {
    readonly takes: { readonly staging: string; readonly shop: string; readonly after: number };
    readonly answers: { readonly last: number; readonly share: number } | null;
  };
  /** Unpacks a shop bundle, or stores a backup aside, and inspects it. */
  readonly readShop: { readonly takes: { readonly file: string }; readonly answers: CandidateFinding };
  /** Inspects a backup as a restore would. */
  readonly lookInto: { readonly takes: { readonly file: string }; readonly answers: CandidateFinding };
  /** Reads the circuits of a shelf bundle. */
  readonly readShelf: { readonly takes: { readonly file: string }; readonly answers: readonly Bundled[] };
}
export type ImportTaskName = keyof ImportTasks;

/** The result of a task: its answer, or why the file was refused. */
export type Came<Name extends ImportTaskName> =
  | { readonly answer: ImportTasks[Name]["answers"] }
  | { readonly problems: readonly string[] };

/**
 * Does one task.
 * @param onShare receives the share done from time to time
 */
export type DoTask<Name extends ImportTaskName> = (
  takes: ImportTasks[Name]["takes"],
  onShare: (share: number) => void,
) => Promise<Came<Name>>;

/** A task for the process. */
export interface ImportOrder {
  readonly id: number;
  readonly task: ImportTaskName;
  readonly takes: ImportTasks[ImportTaskName]["takes"];
}

export type ImportNews =
  | { readonly id: number; readonly share: number }
  | { readonly id: number; readonly came: Came<ImportTaskName> };
