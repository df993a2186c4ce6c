import { type Parsed, type ProblemCode, quoted, type Refused } from "../problem/problem";
import type { CurrentRecording } from "../signal/currentRecording";
import { mostSamples, type RecordingSketch, wrong } from "./recordingSketch";
import { byteOrderMark, textOf } from "./textBytes";

const [lineFeed, carriageReturn, space, quote, plus, minus, point, comma, tab] = [
  10, 13, 32, 34, 43, 45, 46, 44, 9,
];
const tens = Float64Array.from({ length: 40 }, (_, i) => 10 ** i);

/** How the rows of a text are read. */
export interface RowsWanted {
  readonly timeColumn: number | null;
  readonly valueColumn: number;
  readonly rateHz: number | null;
  /** Amps for one unit of the value column. */
  readonly times: number;
}

/**
 * Reads the figures of a text byte by byte, in chunks. Ten million rows are some 200 MB, too much to split into
 * strings or to hold in memory at once. Everything wrong with a line is reported with its number.
 */
export class RowReader {
  private amps: Float32Array;
  private count = 0;
  private line = 0;
  /** The beginning of a line that the next chunk completes. */
  private rest = new Uint8Array(0);
  private readonly clock: SampleClock;

  constructor(
    private readonly sketch: RecordingSketch,
    private readonly wanted: RowsWanted,
  ) {
    this.amps = new Float32Array(Math.min(mostSamples, Math.max(1024, Math.round(sketch.samples * 1.05))));
    this.clock = new SampleClock(sketch.secondsPerFigure);
  }

  /**
   * Takes the next chunk of the text.
   * @returns why it is refused, or null; nothing may be pushed after a refusal
   */
  push(part: Uint8Array): Refused | null {
    const text = this.rest.length === 0 ? part : joined(this.rest, part);
    const end = text.lastIndexOf(lineFeed) + 1;
    this.rest = text.slice(end);
    return this.read(text.subarray(0, end));
  }

  /** The samples read, after the last chunk was pushed. */
  end(): Parsed<CurrentRecording> {
    const refused = this.read(this.rest);
    if (refused) return refused;
    const { amps, count, clock, wanted } = this;
    if (count < 2) return wrong("missing", "", "expected at least two rows of numbers");
    const taken = count === amps.length ? amps : amps.slice(0, count);
    if (wanted.timeColumn === null) return { ok: true, value: { amps: taken, rateHz: wanted.rateHz ?? 1 } };
    const rate = clock.rate(count);
    return rate.ok ? { ok: true, value: { amps: taken, rateHz: rate.value } } : rate;
  }

  /** Reads whole lines. */
  private read(bytes: Uint8Array): Refused | null {
    const { sketch, clock } = this;
    const { timeColumn, valueColumn, times } = this.wanted;
    const cell = new FigureReader(bytes, sketch.delimiter, sketch.decimal);
    const last = Math.max(timeColumn ?? 0, valueColumn);
    for (let at = this.line === 0 ? byteOrderMark(bytes) : 0; at < bytes.length; at = cell.nextLine(at)) {
      this.line += 1;
      if (this.line <= sketch.headerLines || cell.isBlank(at)) continue;
      let value = Number.NaN;
      let time = Number.NaN;
      let place = at;
      for (let column = 0; column <= last; column++) {
        if (column === valueColumn) value = cell.read(place);
        else if (column === timeColumn) time = cell.read(place);
        if (column < last) place = cell.nextCell(place);
      }
      if (!Number.isFinite(value) || (timeColumn !== null && !Number.isFinite(time)))
        return this.wrongHere(
          "wrong-value",
          `expected ${timeColumn === null ? "a number" : "two numbers"}, got ${quoted(cell.lineAt(at))}`,
        );
      if (this.count === mostSamples)
        return this.wrongHere("out-of-range", `at most ${mostSamples} samples are read`);
      if (this.count === this.amps.length) this.grow();
      if (timeColumn !== null && !clock.tick(time, this.line))
        return this.wrongHere("out-of-range", clock.backwards);
      this.amps[this.count++] = value * times;
    }
    return null;
  }

  private readonly wrongHere = (code: ProblemCode, message: string): Refused =>
    wrong(code, `line ${this.line}`, message);

  private grow(): void {
    const more = new Float32Array(Math.min(mostSamples, 2 * this.amps.length));
    more.set(this.amps);
    this.amps = more;
  }
}

function joined(one: Uint8Array, other: Uint8Array): Uint8Array {
  const both = new Uint8Array(one.length + other.length);
  both.set(one);
  both.set(other, one.length);
  return both;
}

/** Reads cells of text by position. */
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

  /** The figure in a column; NaN if the cell is not a figure. */
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

/** A step of this many times the usual one is a gap in the recording. */
const gapSteps = 4;

/** Checks the times of rows: they must increase evenly. */
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

  /** Samples a second. Times written with few digits repeat and then jump; that is not a gap. */
  rate(count: number): Parsed<number> {
    const span = this.last - this.first;
    if (!(span > 0))
      return wrong("out-of-range", "", `time must rise from the first row to the last, got ${span} s`);
    const usual = span / (count - 1);
    const allowed = this.standing ? 2.2 * this.shortest + usual : gapSteps * usual;
    if (this.longest > allowed && count > 8)
      return wrong(
        "out-of-range",
        `line ${this.longestLine}`,
        `a gap of ${this.longest.toPrecision(3)} s where rows are ${usual.toPrecision(3)} s apart: rows must be evenly spaced`,
      );
    return { ok: true, value: (count - 1) / span };
  }
}
