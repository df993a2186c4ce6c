import Papa from "papaparse";
import type { Parsed } from "../problem/problem";
import { type RecordingColumn, type RecordingSketch, unitScale, wrong } from "./recordingSketch";
import { byteOrderMark, textOf } from "./textBytes";

const headBytes = 64 * 1024;
const rowsLookedAt = 200;
const mostHeaderLines = 100;
const mostColumns = 64;
const shownFigures = 5;

/** A figure as a scope writes it, NaN if it is not one. */
function figure(cell: string | undefined, decimal: string): number {
  const text = (cell ?? "")
    .trim()
    .replace(/^"(.*)"$/, "$1")
    .trim();
  if (!/^[+-]?[\d.,]/.test(text)) return Number.NaN;
  return Number(decimal === "," ? text.replace(",", ".") : text);
}

interface Head {
  readonly rows: readonly string[][];
  readonly delimiter: string;
  readonly decimal: "." | ",";
  /** Index of the first row of figures. */
  readonly start: number;
}

function headOf(text: string): Head | null {
  for (const delimiter of [";", "\t", ",", "|", " "]) {
    const { data } = Papa.parse<string[]>(text, { delimiter, preview: mostHeaderLines + rowsLookedAt });
    const rows = delimiter === " " ? data.map((row) => row.filter((cell) => cell !== "")) : data;
    for (const decimal of delimiter === "," ? (["."] as const) : ([".", ","] as const)) {
      const figures = rows.map((row) =>
        row.length > 0 &&
        row.length <= mostColumns &&
        row.some((cell) => cell.trim() !== "") &&
        row.every((cell) => cell.trim() === "" || Number.isFinite(figure(cell, decimal)))
          ? row.filter((cell) => cell.trim() !== "").length
          : 0,
      );
      const blank = rows.map((row) => row.every((cell) => cell.trim() === ""));
      const below = (i: number): number => figures.find((_, at) => at > i && !blank[at]) ?? 0;
      const start = figures.findIndex((count, i) => count >= 2 && below(i) >= 2);
      const single = figures.findIndex(
        (count, i) => count === 1 && figures[i + 1] === 1 && figures[i + 2] === 1,
      );
      if (start >= 0) return { rows, delimiter, decimal, start };
      if (single >= 0 && delimiter === ",") return { rows, delimiter, decimal, start: single };
    }
  }
  return null;
}

/** A header's cell: the name, and the unit in brackets after it or in the row below. */
function nameAndUnit(cell: string, below: string, unitsAlone: boolean): { name: string; unit: string } {
  const text = cell.trim();
  const bracketed = /^(.*?)[([]\s*([^)\]]*?)\s*[)\]]\s*$/.exec(text);
  if (bracketed) return { name: (bracketed[1] ?? "").trim() || text, unit: bracketed[2] ?? "" };
  const under = below.replace(/[()[\]]/g, "").trim();
  if (unitScale(under).base) return { name: text, unit: under };
  // A bare A is as often a channel's name as a unit, unless all cells beside it are units.
  return { name: text, unit: unitScale(text).base && (unitsAlone || !/^a$/i.test(text)) ? text : "" };
}

/** A sample rate in the header: an interval or a frequency with its unit. */
function headerRate(lines: readonly string[][], decimal: string): number | null {
  for (const line of lines) {
    const text = line.join(" ");
    const number = line
      .map((cell) => figure(/[+-]?\d[\d.,]*(?:e[+-]?\d+)?/i.exec(cell)?.[0], decimal))
      .find(Number.isFinite);
    if (number === undefined || !(number > 0)) continue;
    if (/interval|period|increment|delta ?t/i.test(text)) {
      const unit = /\b(ns|us|µs|ms|s)\b/i.exec(text.replace(/\d[\d.,]*(?:e[+-]?\d+)?/gi, " "))?.[1] ?? "s";
      return 1 / (number * unitScale(unit).per);
    }
    if (/rate|frequency|samples? ?(per|\/) ?s/i.test(text)) {
      const unit = /\b([kM]?)(hz|s\/s|sa\/s|sps)\b/i.exec(text)?.[1] ?? "";
      return number * (unit === "k" ? 1e3 : unit === "M" ? 1e6 : 1);
    }
  }
  return null;
}

const isRising = (values: readonly number[]): boolean =>
  values.length > 1 &&
  values.every((value, i) => i === 0 || value >= (values[i - 1] as number)) &&
  (values.at(-1) as number) > (values[0] as number);

/** The columns by name and unit (which may be in the row below), with their first figures. */
function columnsOf(
  header: readonly string[][],
  body: readonly string[][],
  width: number,
  decimal: string,
): RecordingColumn[] {
  const last = header.at(-1) ?? [];
  const unitsBelow =
    header.length > 1 &&
    last.filter((cell) => unitScale(cell.replace(/[()[\]]/g, "")).base).length >= Math.min(2, width);
  const names = unitsBelow ? (header.at(-2) ?? []) : last;
  const unitsAlone = width > 1 && names.every((cell) => unitScale(cell).base !== null);
  return Array.from({ length: width }, (_, column) => ({
    ...nameAndUnit(names[column] ?? "", unitsBelow ? (last[column] ?? "") : "", unitsAlone),
    first: body.slice(0, shownFigures).map((row) => figure(row[column], decimal)),
  }));
}

/** Whether figures count up by one. */
const counts = (own: readonly number[]): boolean =>
  own.every((value, i) => i === 0 || value === (own[i - 1] as number) + 1);

interface Sketched {
  readonly columns: readonly RecordingColumn[];
  readonly figures: readonly (readonly number[])[];
  /** Columns in which nearly every row is a figure. */
  readonly full: readonly boolean[];
  readonly header: readonly string[][];
  readonly decimal: string;
}

/**
 * Whether a column holds the time: by its unit, by its name, or as a first column that rises and is not just a
 * counter.
 */
function isTime({ columns, figures, full, header, decimal }: Sketched, column: number): boolean {
  const { name = "", unit = "" } = columns[column] ?? {};
  const own = figures[column] ?? [];
  if (!full[column] || unitScale(unit).base === "V" || unitScale(unit).base === "A") return false;
  if (unitScale(unit).base === "s" || /^(time|t|seconds?)\b/i.test(name)) return true;
  if (column !== 0 || columns.length < 2) return false;
  return isRising(own)
    ? !(
        counts(own) &&
        own.length > 2 &&
        (/sample|index|point|^n$|^#/i.test(name) || headerRate(header, decimal) !== null)
      )
    : /zeit|temps|tiempo|tempo/i.test(name) || header.length === 0;
}

/** Mean length of a row, from the first ones. */
function bytesPerRow(body: readonly string[][], delimiter: string): number {
  const lengths = body.slice(0, 50).map((row) => row.join(delimiter).length + 1);
  return lengths.reduce((sum, length) => sum + length, 0) / Math.max(1, lengths.length);
}

/** What a text file contains. */
export function sketchCsv(bytes: Uint8Array, length = bytes.length): Parsed<RecordingSketch> {
  if (bytes.length === 0) return wrong("missing", "", "the file is empty");
  const from = byteOrderMark(bytes);
  const text = textOf(bytes, from, Math.min(bytes.length, from + headBytes));
  if (text.includes("\0"))
    return wrong(
      "unreadable",
      "",
      "neither text nor a WAV file: it holds zero bytes; export the recording as CSV or WAV",
    );
  // The last row is left out if the chunk ends within it.
  const whole = length > from + headBytes ? text.slice(0, text.lastIndexOf("\n") + 1) : text;
  const head = headOf(whole);
  if (!head)
    return wrong("wrong-value", "", "expected two columns of numbers, seconds and the probe's value");
  const { rows, delimiter, decimal, start } = head;
  const body = rows.slice(start).filter((row) => row.some((cell) => cell.trim() !== ""));
  const width = Math.max(...body.slice(0, 3).map((row) => row.length));
  const header = rows.slice(0, start).filter((row) => row.some((cell) => cell.trim() !== ""));
  const columns = columnsOf(header, body, width, decimal);
  const figures = columns.map((_, column) =>
    body.map((row) => figure(row[column], decimal)).filter(Number.isFinite),
  );
  const full = figures.map((own) => own.length >= 0.5 * body.length && own.length > 1);
  const sketched = { columns, figures, full, header, decimal };
  const found = columns.findIndex((_, column) => isTime(sketched, column));
  const timeColumn = found < 0 ? null : found;
  const index = timeColumn === null && width > 1 && counts(figures[0] ?? []) ? 0 : -1;
  const fits = (column: number): boolean =>
    column !== timeColumn && column !== index && full[column] === true;
  const amps = columns.findIndex((own, column) => fits(column) && unitScale(own.unit).base === "A");
  const valueColumn = amps >= 0 ? amps : columns.findIndex((_, column) => fits(column));
  if (valueColumn < 0)
    return wrong("wrong-value", "", "expected two columns of numbers, seconds and the probe's value");
  const unit = unitScale(columns[valueColumn]?.unit ?? "");
  const time = timeColumn === null ? null : unitScale(columns[timeColumn]?.unit ?? "");
  const secondsPerFigure = time?.base === "s" ? time.per : 1;
  const stamps = timeColumn === null ? [] : (figures[timeColumn] ?? []);
  const span = ((stamps.at(-1) ?? 0) - (stamps[0] ?? 0)) * secondsPerFigure;
  const rate =
    timeColumn === null ? headerRate(header, decimal) : span > 0 ? (stamps.length - 1) / span : null;
  return {
    ok: true,
    value: {
      kind: "csv",
      delimiter,
      decimal,
      headerLines: start,
      columns,
      timeColumn,
      secondsPerFigure,
      valueColumn,
      perFigure: unit.base === "V" || unit.base === "A" ? unit.per : 1,
      inAmps: unit.base === "A",
      rateHz: rate,
      samples: length <= from + headBytes ? body.length : Math.round(length / bytesPerRow(body, delimiter)),
    },
  };
}
