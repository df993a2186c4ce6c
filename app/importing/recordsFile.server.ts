import { createReadStream, readFileSync, statSync } from "node:fs";
import { parsedJson } from "@core/formats/parsedJson";
import { type JobRecord, parseRecords, recordFromCells, requiredColumns } from "@core/formats/recordFile";
import { type Parsed, type Problem, refused } from "@core/problem/problem";
import Papa from "papaparse";

const mostProblems = 12;
/** Largest number of records in an `airway-records` file. */
const mostRecords = 200_000;

type Take = (records: readonly JobRecord[], share: number) => Promise<void>;

/** The first character of a file that is not white space. */
async function firstCharacter(file: string): Promise<string> {
  for await (const chunk of createReadStream(file, { encoding: "utf8", end: 4096 })) {
    const text = (chunk as string).replace(/^\uFEFF/, "").trimStart();
    if (text !== "") return text.charAt(0);
  }
  return "";
}

/**
 * Reads closed jobs from a CSV file (RFC 4180) or an `airway-records` JSON file in chunks.
 * @param take receives what was read and the share of the file read
 * @returns their number; refused with the rows and columns that do not fit
 */
export async function readRecordsFile(file: string, take: Take): Promise<Parsed<number>> {
  if ((await firstCharacter(file)) !== "{") return readCsv(file, take);
  const records = parseRecords(parsedJson(readFileSync(file, "utf8").replace(/^\uFEFF/, "")));
  if (!records.ok) return refused(records.problems.slice(0, mostProblems));
  const piece = 1000;
  for (let from = 0; from < records.value.length; from += piece)
    await take(records.value.slice(from, from + piece), from / records.value.length);
  return { ok: true, value: records.value.length };
}

/** Reads rows as they come, and collects what is wrong with them. */
class RowReader {
  readonly problems: Problem[] = [];
  rows = 0;
  /** True once the text is not a table, so that further problems in it mean nothing. */
  isBroken = false;
  private header: readonly string[] | null = null;

  /** The records of some rows; an empty list once something is wrong. */
  read(lines: readonly (readonly string[])[]): JobRecord[] {
    const records: JobRecord[] = [];
    for (const cells of lines) {
      this.rows += 1;
      if (this.header === null) this.begin(cells);
      else if (!this.isBroken && this.problems.length < mostProblems) {
        const read = recordFromCells(this.header, cells, this.rows);
        if (read.ok) records.push(read.value);
        else this.problems.push(...read.problems);
      }
      if (this.rows > mostRecords + 1 && this.problems.length === 0)
        this.refuse("out-of-range", `row ${this.rows}`, `a file holds at most ${mostRecords} jobs`);
    }
    return this.problems.length > 0 ? [] : records;
  }

  private begin(cells: readonly string[]): void {
    this.header = cells.map((cell, place) => (place === 0 ? cell.replace(/^\uFEFF/, "") : cell));
    const missing = requiredColumns.filter((column) => !this.header?.includes(column));
    if (missing.length === 0) return;
    this.isBroken = true;
    this.refuse("missing", "row 1", `missing columns: ${missing.join(", ")}`);
  }

  refuse(code: Problem["code"], path: string, message: string): void {
    this.problems.push({ code, path, message });
  }

  refuseTable(path: string, message: string): void {
    this.isBroken = true;
    this.refuse("unreadable", path, message);
  }

  finish(): Parsed<number> {
    if (this.header === null) this.refuse("missing", "row 1", "the header row is missing");
    if (this.problems.length > 0) return refused(this.problems.slice(0, mostProblems));
    return { ok: true, value: this.rows - 1 };
  }
}

function readCsv(file: string, take: Take): Promise<Parsed<number>> {
  const bytes = Math.max(1, statSync(file).size);
  const reader = new RowReader();
  return new Promise((done, failed) => {
    Papa.parse<string[]>(createReadStream(file, "utf8"), {
      skipEmptyLines: true,
      chunk: ({ data, errors, meta }, parser) => {
        for (const { row, message, type } of errors)
          if (type !== "Delimiter") reader.refuseTable(`row ${reader.rows + (row ?? 0) + 1}`, message);
        const records = reader.read(data);
        if (reader.problems.length >= mostProblems) return parser.abort();
        parser.pause();
        take(records, Math.min(1, meta.cursor / bytes)).then(
          () => parser.resume(),
          (thrown: unknown) => {
            parser.abort();
            failed(thrown instanceof Error ? thrown : new Error(String(thrown)));
          },
        );
      },
      complete: () => done(reader.finish()),
      error: failed,
    });
  });
}
