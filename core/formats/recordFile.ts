import { z } from "zod";
import { type Parsed, problemsOf, refused } from "../problem/problem";
import { causeKinds } from "../records/closure";
import { symptoms } from "../records/symptom";
import { workInFileSchema } from "../workList/workLine";
import { parsedJson } from "./parsedJson";

const text = (most: number) => z.string().max(most);
const moment = z.iso.datetime({ offset: true });

/** One closed job as exchanged between shops: plain values, one per column. */
export const jobRecordSchema = z.strictObject({
  /** The same job imported twice is one job. */
  key: text(80).min(1),
  vehicle: text(60).min(1),
  model: text(60).min(1),
  circuit: text(64).min(1),
  came: moment,
  closed: moment,
  words: text(500),
  found: text(1000).min(3),
  /** The fault without its size, `R1.link:open`, or `unknown`. */
  fault: text(200).min(1),
  kind: text(64).min(1),
  mode: text(64).min(1),
  family: text(64).min(1),
  symptom: z.enum(symptoms),
  cause: z.enum(causeKinds),
  /** The parts replaced, joined by a plus. */
  parts: text(200).min(1),
  looks: z.number().int().min(0).max(1000),
  minutes: z.number().min(0).max(100_000),
  totalMinor: z.number().int().min(0).max(1e9).nullable(),
  cameBack: z.boolean(),
  /** The work list, round by round; absent in files from before there was one. In a table it is one cell of JSON. */
  works: z.array(workInFileSchema).max(200).optional(),
});
export type JobRecord = z.infer<typeof jobRecordSchema>;

/** The shape of an `airway-records` file, version 1: closed jobs as a list. */
export const recordFileSchema = z.strictObject({
  format: z.literal("airway-records"),
  version: z.literal(1),
  records: z.array(jobRecordSchema).max(200_000),
});

/** Columns of a records file as comma-separated text, in order. */
export const recordColumns = Object.keys(jobRecordSchema.shape) as (keyof JobRecord)[];

/** Columns that every table has to have. */
export const requiredColumns: readonly (keyof JobRecord)[] = recordColumns.filter(
  (column) => !jobRecordSchema.shape[column].safeParse(undefined).success,
);

/**
 * A cell that a spreadsheet would take for a formula gets an apostrophe, and so does one that already begins with one.
 */
export const guardedCell = (cell: string): string => (/^'*[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);
/** The cell without the added apostrophe. */
export const unguardedCell = (cell: string): string => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

/** A record as cells of text. Figures need no apostrophe, because they cannot be negative. */
export const recordCells = (record: JobRecord): string[] =>
  recordColumns.map((column) => {
    const value = record[column];
    if (value === null || value === undefined) return "";
    if (typeof value === "object") return JSON.stringify(value);
    return typeof value === "string" ? guardedCell(value) : String(value);
  });

/** Reads a row of cells by its header; refused with the row and column that do not fit. */
export function recordFromCells(
  header: readonly string[],
  cells: readonly string[],
  row: number,
): Parsed<JobRecord> {
  const own = Object.fromEntries(
    header.map((column, place) => [column, typedCell(column, unguardedCell(cells[place] ?? ""))]),
  );
  const parsed = jobRecordSchema.safeParse(own);
  if (parsed.success) return { ok: true, value: parsed.data };
  return refused(
    problemsOf(parsed.error, own).map(({ code, path, message }) => ({
      code,
      path: `row ${row}${path ? `, ${path}` : ""}`,
      message,
    })),
  );
}

function typedCell(column: string, cell: string): unknown {
  switch (column) {
    case "looks":
    case "minutes":
      return cell.trim() === "" ? undefined : figure(cell);
    case "totalMinor":
      return cell.trim() === "" ? null : figure(cell);
    case "cameBack":
      return cell === "true" ? true : cell === "false" ? false : cell;
    case "works":
      return cell.trim() === "" ? undefined : (parsedJson(cell) ?? cell);
    default:
      return cell;
  }
}

/** Text that is not a figure stays as typed, so that the refusal can quote it. */
const figure = (cell: string): number | string => (Number.isNaN(Number(cell)) ? cell : Number(cell));

/** Reads an `airway-records` file; refused with the places that do not fit. */
export function parseRecords(input: unknown): Parsed<JobRecord[]> {
  const parsed = recordFileSchema.safeParse(input);
  return parsed.success ? { ok: true, value: parsed.data.records } : refused(problemsOf(parsed.error, input));
}
