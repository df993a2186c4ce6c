import { type ProblemCode, type Refused, refused } from "../problem/problem";

/** A column of a recording in text. */
export interface RecordingColumn {
  readonly name: string;
  /** As written: `V`, `mA`, `ms`; empty where none is. */
  readonly unit: string;
  /** The first figures, as read. */
  readonly first: readonly number[];
}

/** What a file was found to hold, to be looked at before it is taken. */
export interface RecordingSketch {
  readonly kind: "csv" | "wav";
  /** What stands between the columns, `""` in a WAV file. */
  readonly delimiter: string;
  readonly decimal: "." | ",";
  /** Lines before the figures. */
  readonly headerLines: number;
  readonly columns: readonly RecordingColumn[];
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

/** A recording holds at most so many samples. */
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
