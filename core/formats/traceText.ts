import Papa from "papaparse";
import type { CurrentTrace } from "../motor/currentTrace";
import { Stopped } from "../motor/stopped";
import { type Parsed, quoted } from "./problem";
import { mostSamples, type TraceColumn, type TraceSketch, unitScale, wrong } from "./traceFile";

const headBytes = 64 * 1024;
const rowsLookedAt = 200;
const mostHeaderLines = 100;
const mostColumns = 64;
const shownFigures = 5;

/** Bytes as text, one character a byte: figures and delimiters are plain ASCII in every code page met. */
function textOf(bytes: Uint8Array, from: number, to: number): string {
  let text = "";
  for (let i = from; i < to; i += 4096)
    text += String.fromCharCode(...bytes.subarray(i, Math.min(to, i + 4096)));
  return text;
}

const byteOrderMark = (bytes: Uint8Array): number =>
  bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? 3 : 0;

/** A figure as a scope writes it, NaN where it is none. */
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
  /** Place of the first row of figures among the rows. */
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

/** A header's cell: the name, and the unit in brackets after it or as the row below says. */
function nameAndUnit(cell: string, below: string): { name: string; unit: string } {
  const text = cell.trim();
  const bracketed = /^(.*?)[([]\s*([^)\]]*?)\s*[)\]]\s*$/.exec(text);
  if (bracketed) return { name: (bracketed[1] ?? "").trim() || text, unit: bracketed[2] ?? "" };
  const under = below.replace(/[()[\]]/g, "").trim();
  if (unitScale(under).base) return { name: text, unit: under };
  // A bare A is a channel's name as often as a unit.
  return { name: text, unit: unitScale(text).base && !/^a$/i.test(text) ? text : "" };
}

/** A rate in the header's own words: an interval or a frequency with its unit. */
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

/** What a text file holds. */
export function sketchCsv(bytes: Uint8Array, length = bytes.length): Parsed<TraceSketch> {
  if (bytes.length === 0) return wrong("", "the file is empty");
  const from = byteOrderMark(bytes);
  const text = textOf(bytes, from, Math.min(bytes.length, from + headBytes));
  if (text.includes("\0"))
    return wrong("", "neither text nor a WAV file: it holds zero bytes; export the trace as CSV or WAV");
  // A row cut off by the end of the part looked at is left out.
  const whole = length > from + headBytes ? text.slice(0, text.lastIndexOf("\n") + 1) : text;
  const head = headOf(whole);
  if (!head) return wrong("", "expected two columns of numbers, seconds and the probe's value");
  const { rows, delimiter, decimal, start } = head;
  const body = rows.slice(start).filter((row) => row.some((cell) => cell.trim() !== ""));
  const width = Math.max(...body.slice(0, 3).map((row) => row.length));
  const header = rows.slice(0, start).filter((row) => row.some((cell) => cell.trim() !== ""));
  const last = header.at(-1) ?? [];
  const unitsBelow =
    header.length > 1 &&
    last.filter((cell) => unitScale(cell.replace(/[()[\]]/g, "")).base).length >= Math.min(2, width);
  const names = unitsBelow ? (header.at(-2) ?? []) : last;
  const columns: TraceColumn[] = Array.from({ length: width }, (_, column) => ({
    ...nameAndUnit(names[column] ?? "", unitsBelow ? (last[column] ?? "") : ""),
    first: body.slice(0, shownFigures).map((row) => figure(row[column], decimal)),
  }));
  const figures = columns.map((_, column) =>
    body.map((row) => figure(row[column], decimal)).filter(Number.isFinite),
  );
  const full = figures.map((own) => own.length >= 0.5 * body.length && own.length > 1);
  const counts = (own: readonly number[]): boolean =>
    own.every((value, i) => i === 0 || value === (own[i - 1] as number) + 1);
  const isTime = (column: number): boolean => {
    const { name = "", unit = "" } = columns[column] ?? {};
    const own = figures[column] ?? [];
    if (!full[column] || unitScale(unit).base === "V" || unitScale(unit).base === "A") return false;
    if (unitScale(unit).base === "s" || /^(time|t|seconds?)\b/i.test(name)) return true;
    if (column !== 0 || width < 2) return false;
    return isRising(own)
      ? !(
          counts(own) &&
          own.length > 2 &&
          (/sample|index|point|^n$|^#/i.test(name) || headerRate(header, decimal) !== null)
        )
      : /zeit|temps|tiempo|tempo/i.test(name) || header.length === 0;
  };
  const found = columns.findIndex((_, column) => isTime(column));
  const timeColumn = found < 0 ? null : found;
  const index = timeColumn === null && width > 1 && counts(figures[0] ?? []) ? 0 : -1;
  const fits = (column: number): boolean =>
    column !== timeColumn && column !== index && full[column] === true;
  const amps = columns.findIndex((own, column) => fits(column) && unitScale(own.unit).base === "A");
  const valueColumn = amps >= 0 ? amps : columns.findIndex((_, column) => fits(column));
  if (valueColumn < 0) return wrong("", "expected two columns of numbers, seconds and the probe's value");
  const unit = unitScale(columns[valueColumn]?.unit ?? "");
  const time = timeColumn === null ? null : unitScale(columns[timeColumn]?.unit ?? "");
  const secondsPerFigure = time?.base === "s" ? time.per : 1;
  const stamps = timeColumn === null ? [] : (figures[timeColumn] ?? []);
  const span = ((stamps.at(-1) ?? 0) - (stamps[0] ?? 0)) * secondsPerFigure;
  const rate =
    timeColumn === null ? headerRate(header, decimal) : span > 0 ? (stamps.length - 1) / span : null;
  const bodyText = body.slice(0, 50).map((row) => row.join(delimiter).length + 1);
  const perRow = bodyText.reduce((sum, length) => sum + length, 0) / Math.max(1, bodyText.length);
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
      samples: length <= from + headBytes ? body.length : Math.round(length / perRow),
    },
  };
}

const [lineFeed, carriageReturn, space, quote, plus, minus, point, comma, tab] = [
  10, 13, 32, 34, 43, 45, 46, 44, 9,
];
const tens = Float64Array.from({ length: 40 }, (_, i) => 10 ** i);
const rowsPerReport = 250_000;

interface Wanted {
  readonly timeColumn: number | null;
  readonly valueColumn: number;
  readonly rateHz: number | null;
  /** Amps a figure of the value column stands for. */
  readonly times: number;
}

/**
 * Reads the figures byte by byte: ten million rows are some 200 MB of text, which no splitting into strings survives.
 * Everything odd about a line is told with its number.
 */
export function readSamples(
  bytes: Uint8Array,
  sketch: TraceSketch,
  { timeColumn, valueColumn, rateHz, times }: Wanted,
  onProgress: (share: number) => boolean,
): Parsed<CurrentTrace> {
  const cell = new FigureReader(bytes, sketch.delimiter, sketch.decimal);
  let at = byteOrderMark(bytes);
  let line = 1;
  for (; line <= sketch.headerLines; line++) at = cell.nextLine(at);
  let amps = new Float32Array(Math.min(mostSamples, Math.max(1024, Math.round(sketch.samples * 1.05))));
  let count = 0;
  const clock = new SampleClock(sketch.secondsPerFigure);
  const last = Math.max(timeColumn ?? 0, valueColumn);
  for (; at < bytes.length; line++, at = cell.nextLine(at)) {
    if (cell.isBlank(at)) continue;
    let value = Number.NaN;
    let time = Number.NaN;
    let place = at;
    for (let column = 0; column <= last; column++) {
      if (column === valueColumn) value = cell.read(place);
      else if (column === timeColumn) time = cell.read(place);
      if (column < last) place = cell.nextCell(place);
    }
    if (!Number.isFinite(value) || (timeColumn !== null && !Number.isFinite(time)))
      return wrong(
        `line ${line}`,
        `expected ${timeColumn === null ? "a number" : "two numbers"}, got ${quoted(cell.lineAt(at))}`,
      );
    if (count === mostSamples) return wrong(`line ${line}`, `at most ${mostSamples} samples are read`);
    if (count === amps.length) {
      const more = new Float32Array(Math.min(mostSamples, 2 * amps.length));
      more.set(amps);
      amps = more;
    }
    if (timeColumn !== null && !clock.tick(time, line)) return wrong(`line ${line}`, clock.backwards);
    amps[count++] = value * times;
    if (count % rowsPerReport === 0 && !onProgress(at / bytes.length)) throw new Stopped();
  }
  if (count < 2) return wrong("", "expected at least two rows of numbers");
  const taken = count === amps.length ? amps : amps.slice(0, count);
  if (timeColumn === null) return { ok: true, value: { amps: taken, rateHz: rateHz ?? 1 } };
  const rate = clock.rate(count);
  return rate.ok ? { ok: true, value: { amps: taken, rateHz: rate.value } } : rate;
}

/** Reads cells of text by their place. */
class FigureReader {
  private readonly split: number;
  private readonly decimal: number;

  constructor(
    private readonly bytes: Uint8Array,
    delimiter: string,
    decimal: "." | ",",
  ) {
    this.split = delimiter.charCodeAt(0);
    this.decimal = decimal === "," ? comma : point;
  }

  nextLine(from: number): number {
    const end = this.bytes.indexOf(lineFeed, from);
    return end < 0 ? this.bytes.length : end + 1;
  }

  isBlank(from: number): boolean {
    let at = from;
    while (this.isSpace(this.bytes[at])) at += 1;
    const byte = this.bytes[at];
    return byte === undefined || byte === lineFeed || byte === carriageReturn;
  }

  nextCell(from: number): number {
    const { bytes, split } = this;
    let at = from;
    if (split === space) while (bytes[at] === space) at += 1;
    for (; at < bytes.length && bytes[at] !== split; at++) if (bytes[at] === lineFeed) return at;
    return at < bytes.length ? at + 1 : at;
  }

  lineAt(from: number): string {
    return textOf(this.bytes, from, Math.min(this.nextLine(from), from + 80))
      .trim()
      .split(String.fromCharCode(this.split))
      .join(" | ");
  }

  private isSpace(byte: number | undefined): boolean {
    return byte === space || (byte === tab && this.split !== tab);
  }

  /** The figure at a place; NaN where the cell is none. */
  read(from: number): number {
    const { bytes, decimal } = this;
    let at = from;
    while (this.isSpace(bytes[at])) at += 1;
    const quoted = bytes[at] === quote;
    if (quoted) at += 1;
    const negative = bytes[at] === minus;
    if (negative || bytes[at] === plus) at += 1;
    let mantissa = 0;
    let digits = 0;
    let scale = 0;
    let afterPoint = false;
    for (; at < bytes.length; at++) {
      const byte = bytes[at] as number;
      if (byte >= 48 && byte <= 57) {
        digits += 1;
        if (mantissa < 1e15) {
          mantissa = mantissa * 10 + byte - 48;
          if (afterPoint) scale -= 1;
        } else if (!afterPoint) scale += 1;
      } else if (byte === decimal && !afterPoint) afterPoint = true;
      else break;
    }
    if (digits === 0) return Number.NaN;
    if ((bytes[at] ?? 0) === 101 || bytes[at] === 69) {
      at += 1;
      const down = bytes[at] === minus;
      if (down || bytes[at] === plus) at += 1;
      let [exponent, figures] = [0, 0];
      for (; (bytes[at] ?? 0) >= 48 && (bytes[at] ?? 0) <= 57; at++, figures++)
        exponent = Math.min(400, exponent * 10 + (bytes[at] as number) - 48);
      if (figures === 0) return Number.NaN;
      scale += down ? -exponent : exponent;
    }
    if (quoted) {
      if (bytes[at] !== quote) return Number.NaN;
      at += 1;
    }
    if (this.split !== space) while (this.isSpace(bytes[at])) at += 1;
    const end = bytes[at];
    if (end !== undefined && end !== this.split && end !== lineFeed && end !== carriageReturn)
      return Number.NaN;
    const size =
      scale === 0
        ? mantissa
        : scale < 0
          ? scale > -40
            ? mantissa / (tens[-scale] as number)
            : mantissa * 10 ** scale
          : mantissa * 10 ** scale;
    return negative ? -size : size;
  }
}

/** Steps this many times the usual one are a gap in the recording. */
const gapSteps = 4;

/** Follows the times of rows: they must rise, and evenly. */
class SampleClock {
  backwards = "";
  private first = Number.NaN;
  private last = Number.NaN;
  private longest = 0;
  private longestLine = 0;
  private shortest = Number.POSITIVE_INFINITY;
  private standing = false;

  constructor(private readonly secondsPerFigure: number) {}

  tick(time: number, line: number): boolean {
    const now = time * this.secondsPerFigure;
    if (Number.isNaN(this.first)) this.first = now;
    else {
      const step = now - this.last;
      if (step < 0) {
        this.backwards = `time must rise from row to row, got ${now} s after ${this.last} s`;
        return false;
      }
      if (step === 0) this.standing = true;
      else if (step < this.shortest) this.shortest = step;
      if (step > this.longest) [this.longest, this.longestLine] = [step, line];
    }
    this.last = now;
    return true;
  }

  /** Samples a second. Times written with few digits stand still and jump; that is no gap. */
  rate(count: number): Parsed<number> {
    const span = this.last - this.first;
    if (!(span > 0)) return wrong("", `time must rise from the first row to the last, got ${span} s`);
    const usual = span / (count - 1);
    const allowed = this.standing ? 2.2 * this.shortest + usual : gapSteps * usual;
    if (this.longest > allowed && count > 8)
      return wrong(
        `line ${this.longestLine}`,
        `a gap of ${this.longest.toPrecision(3)} s where rows are ${usual.toPrecision(3)} s apart: rows must be evenly spaced`,
      );
    return { ok: true, value: (count - 1) / span };
  }
}
