import type { QuantityName } from "../units/quantity";

/** An input figure of a sum. */
export interface FigureField {
  readonly id: string;
  readonly title: string;
  readonly quantity: QuantityName;
  /** Default unit and figure. */
  readonly unit: string;
  readonly start: string;
  /** Limits in the quantity's base unit. */
  readonly low: number;
  readonly high: number;
  readonly hint?: string;
}

/** One of several choices. */
export interface ChoiceField {
  readonly id: string;
  readonly title: string;
  readonly choices: readonly { readonly id: string; readonly title: string }[];
  readonly start: string;
}

/** Words or figures that only this sum reads. */
export interface TextField {
  readonly id: string;
  readonly title: string;
  readonly text: true;
  readonly start: string;
  readonly hint?: string;
}

export type SumField = FigureField | ChoiceField | TextField;

/** One result of a sum. */
export interface SumResult {
  readonly id: string;
  readonly title: string;
  /** In the quantity's base unit. */
  readonly base: number;
  readonly quantity: QuantityName;
  /** Unit it is first shown in. */
  readonly unit: string;
  /** True for the main result, which stays in view. */
  readonly main?: true;
}

/** A curve through the input. */
export interface SumCurve {
  readonly title: string;
  readonly across: string;
  readonly up: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  /** The input figures' positions on it. */
  readonly here: { readonly x: number; readonly y: number } | null;
}

/** The results of a sum. */
export interface SumWorked {
  readonly results: readonly SumResult[];
  /** Remarks on them. */
  readonly notes: readonly string[];
  readonly table?: { readonly head: readonly string[]; readonly body: readonly (readonly string[])[] };
  readonly curve?: SumCurve;
}

/** Why a sum cannot be done, and which field causes it. */
export interface SumProblem {
  readonly field: string;
  readonly message: string;
}

export type SumOutcome =
  | { readonly ok: true; readonly value: SumWorked }
  | { readonly ok: false; readonly problems: readonly SumProblem[] };

/** The input: figures in base units, choices and texts unchanged. */
export interface SumAsked {
  readonly figure: (id: string) => number;
  readonly text: (id: string) => string;
}

/** A bench sum: its inputs, its calculation, and the source of its formula. */
export interface Sum {
  readonly id: string;
  readonly title: string;
  /** The question it answers, in one line. */
  readonly question: string;
  readonly fields: readonly SumField[];
  readonly formula: string;
  readonly source: string;
  readonly work: (asked: SumAsked) => SumOutcome;
}

/** A sum that was worked out. */
export const done = (value: SumWorked): SumOutcome => ({ ok: true, value });

/** A sum that one field prevents. */
export const refusedAt = (field: string, message: string): SumOutcome => ({
  ok: false,
  problems: [{ field, message }],
});

/** Points of a curve, evenly spaced over a range. */
export function curvePoints(
  low: number,
  high: number,
  at: (x: number) => number,
  count = 41,
): { x: number; y: number }[] {
  return Array.from({ length: count }, (_, i) => {
    const x = low + ((high - low) * i) / (count - 1);
    return { x, y: at(x) };
  });
}
