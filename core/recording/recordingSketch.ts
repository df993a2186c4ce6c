import { type ProblemCode, type Refused, refused } from "../problem/problem";

/** A column of a recording in text. */
export interface RecordingColumn {
  readonly name: string;
  /** As written: `V`, `mA`, `ms`; empty if there is none. */
  readonly unit: string;
  /** The first figures, as read. */
  readonly first: readonly number[];
}

/** What a file contains, for a person to check before it is imported. */
export interface RecordingSketch {
  readonly kind: "csv" | "wav";
  /** The column delimiter, `""` in a WAV file. */
  readonly delimiter: string;
  readonly decimal: "." | ",";
  /** Lines before the figures. */
  readonly headerLines: number;
  readonly columns: readonly RecordingColumn[];
  /** The column of times; null if there is none, in which case a rate must be given. */
  readonly timeColumn: number | null;
  /** Seconds for one unit of the time column. */
  readonly secondsPerFigure: number;
  /** The column of the probe's values. */
  readonly valueColumn: number;
  /** Volts or amps for one unit of that column. */
  readonly perFigure: number;
  /** True if the column holds amps. */
  readonly inAmps: boolean;
  /** Samples a second by its first rows or its header; null if unknown. */
  readonly rateHz: number | null;
  readonly samples: number;
}

/** Largest number of samples in a recording. */
export const mostSamples = 12_000_000;

/** A refusal with one problem. */
export const wrong = (code: ProblemCode, path: string, message: string): Refused =>
  refused([{ code, path, message }]);

const prefixes: Readonly<Record<string, number>> = {
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  μ: 1e-6,
  m: 1e-3,
  "": 1,
  k: 1e3,
};

/** What a unit measures, from the way it is written, and how many base units it stands for. */
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
