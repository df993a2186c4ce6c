import { type JobRecord, recordCells, recordColumns, recordFromCells } from "@core/formats/recordFile";
import { type Parsed, refused } from "@core/problem/problem";
import Papa from "papaparse";

/** Closed jobs as comma-separated text (RFC 4180), safe to open in a spreadsheet. */
export const recordsCsv = (records: readonly JobRecord[]): string =>
  `${Papa.unparse({ fields: [...recordColumns], data: records.map(recordCells) })}\r\n`;

const mostProblems = 12;

/** Reads closed jobs from comma-separated text; refused with the rows and columns that do not fit. */
export function readRecordsCsv(text: string): Parsed<JobRecord[]> {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), { skipEmptyLines: true });
  const [broken] = errors.filter(({ type }) => type !== "Delimiter");
  if (broken)
    return refused([
      { code: "contradiction", path: `row ${(broken.row ?? 0) + 1}`, message: broken.message },
    ]);
  const [header, ...rows] = data;
  if (!header)
    return refused([{ code: "missing", path: "row 1", message: "expected a header, got nothing" }]);
  const missing = recordColumns.filter((column) => !header.includes(column));
  if (missing.length > 0)
    return refused([{ code: "missing", path: "row 1", message: `the header lacks ${missing.join(", ")}` }]);
  const read = rows.map((cells, index) => recordFromCells(header, cells, index + 2));
  const problems = read.flatMap((own) => (own.ok ? [] : own.problems));
  if (problems.length > 0) return refused(problems.slice(0, mostProblems));
  return { ok: true, value: read.flatMap((own) => (own.ok ? [own.value] : [])) };
}
