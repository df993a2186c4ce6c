import type { CurrentTrace } from "../motor/currentTrace";
import { ampsPerFigure, type ProbeScale } from "../motor/probeScale";
import { type Parsed, refused } from "./problem";
import { readSamples, sketchCsv } from "./traceText";
import { sketchWav, wavSamples } from "./traceWav";

/** A column of a trace in text. */
export interface TraceColumn {
  readonly name: string;
  /** As written: `V`, `mA`, `ms`; empty where none is. */
  readonly unit: string;
  /** The first figures, as read. */
  readonly first: readonly number[];
}

/** What a file was found to hold, to be looked at before it is taken. */
export interface TraceSketch {
  readonly kind: "csv" | "wav";
  /** What stands between the columns, `""` in a WAV file. */
  readonly delimiter: string;
  readonly decimal: "." | ",";
  /** Lines before the figures. */
  readonly headerLines: number;
  readonly columns: readonly TraceColumn[];
  /** The column of times, null where there is none: a rate must be given. */
  readonly timeColumn: number | null;
  /** Seconds that one of the time column's figures stands for. */
  readonly secondsPerFigure: number;
  /** The column taken for the probe's. */
  readonly valueColumn: number;
  /** Volts or amps that one of its figures stands for. */
  readonly perFigure: number;
  /** True where the column says it holds amps. */
  readonly inAmps: boolean;
  /** Samples a second by its first rows or its header, null where it does not say. */
  readonly rateHz: number | null;
  readonly samples: number;
}

/** How a file is to be taken; what is left out is as it was found. */
export interface TraceChoice {
  /** What the file says it is; by its first bytes unless given. */
  readonly kind?: "csv" | "wav" | undefined;
  readonly valueColumn?: number | undefined;
  readonly timeColumn?: number | null | undefined;
  readonly rateHz?: number | undefined;
  /** The probe; by what the column says unless given. */
  readonly scale?: ProbeScale | undefined;
}

/** A trace holds at most so many samples. */
export const mostSamples = 12_000_000;

export const wrong = (path: string, message: string): Parsed<never> => refused([{ path, message }]);

export const isWav = (bytes: Uint8Array): boolean =>
  bytes.length >= 4 && bytes[0] === 0x52 && bytes[1] === 0x49 && bytes[2] === 0x46;

/**
 * Looks at a file's first part: delimiter, decimals, header, units, rate.
 * @param kind what the file says it is; by its first bytes unless given
 * @param length bytes of the whole file, where only its first part is at hand
 * @returns what was found, or why it cannot be a trace
 */
export const sketchTrace = (
  bytes: Uint8Array,
  kind?: "csv" | "wav",
  length = bytes.length,
): Parsed<TraceSketch> =>
  kind === "wav" || (kind === undefined && isWav(bytes)) ? sketchWav(bytes) : sketchCsv(bytes, length);

/**
 * Reads a current trace from a CSV or WAV file: evenly spaced samples, scaled to amps. A WAV file's full scale
 * counts as one volt.
 * @param onProgress told the share done; returning false stops it (throws Stopped)
 */
export function readTrace(
  bytes: Uint8Array,
  choice: TraceChoice = {},
  onProgress: (share: number) => boolean = () => true,
): Parsed<CurrentTrace> {
  const found = sketchTrace(bytes, choice.kind);
  if (!found.ok) return found;
  const sketch = found.value;
  const scale: ProbeScale = choice.scale ?? { kind: "amps" };
  const timeColumn = choice.timeColumn === undefined ? sketch.timeColumn : choice.timeColumn;
  const valueColumn = choice.valueColumn ?? sketch.valueColumn;
  if (!sketch.columns[valueColumn]) return wrong("column", `there is no column ${valueColumn + 1}`);
  const times = scaleOf(sketch, valueColumn) * ampsPerFigure(scale);
  if (sketch.kind === "wav") return wavSamples(bytes, valueColumn, times);
  const rateHz = choice.rateHz ?? (timeColumn === null ? sketch.rateHz : null);
  if (timeColumn === null && rateHz === null)
    return wrong("rate", "the file has no column of times: give the samples a second");
  return readSamples(
    bytes,
    sketch,
    { timeColumn: rateHz === null ? timeColumn : null, valueColumn, rateHz, times },
    onProgress,
  );
}

const scaleOf = (sketch: TraceSketch, column: number): number =>
  column === sketch.valueColumn ? sketch.perFigure : (unitScale(sketch.columns[column]?.unit ?? "").per ?? 1);

const prefixes: Readonly<Record<string, number>> = {
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  "": 1,
  k: 1e3,
};

/** What a unit as written stands for, and how many of its base. */
export function unitScale(unit: string): { readonly base: "s" | "V" | "A" | null; readonly per: number } {
  const text = unit
    .trim()
    .replace(
      /^(milli|micro|nano)/i,
      (word) => ({ milli: "m", micro: "u", nano: "n" })[word.toLowerCase()] ?? "",
    );
  const match = /^([nuµμmk]?)(s|sec|second|seconds|volt|volts|v|amp|amps|ampere|a)$/i.exec(text);
  if (!match) return { base: null, per: 1 };
  const [, prefix = "", word = ""] = match;
  const base = /^s/i.test(word) ? "s" : /^v/i.test(word) ? "V" : "A";
  return { base, per: prefixes[prefix] ?? prefixes[prefix.toLowerCase()] ?? 1 };
}
