import type { QuantityName } from "../units/quantity";

/** A figure a sum is made of. */
export interface FigureField {
  readonly id: string;
  readonly title: string;
  readonly quantity: QuantityName;
  /** Unit and figure it begins with. */
  readonly unit: string;
  readonly start: string;
  /** Allowed in the quantity's base unit. */
  readonly low: number;
  readonly high: number;
  readonly hint?: string;
}

/** One of a few ways. */
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

/** One thing a sum gives. */
export interface SumResult {
  readonly id: string;
  readonly title: string;
  /** In the quantity's base unit. */
  readonly base: number;
  readonly quantity: QuantityName;
  /** Unit it is first shown in. */
  readonly unit: string;
  /** Kept in sight: the figure the sum is done for. */
  readonly main?: true;
}

/** A curve through what is asked. */
export interface SumCurve {
  readonly title: string;
  readonly across: string;
  readonly up: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  /** Where the asked figures lie on it. */
  readonly here: { readonly x: number; readonly y: number } | null;
}

/** What a sum gives. */
export interface SumWorked {
  readonly results: readonly SumResult[];
  /** What to mind about them. */
  readonly notes: readonly string[];
  readonly table?: { readonly head: readonly string[]; readonly body: readonly (readonly string[])[] };
  readonly curve?: SumCurve;
}

/** Why a sum cannot be done, and which field says so. */
export interface SumProblem {
  readonly field: string;
  readonly message: string;
}

export type SumOutcome =
  | { readonly ok: true; readonly value: SumWorked }
  | { readonly ok: false; readonly problems: readonly SumProblem[] };

/** What was asked: figures in base units, choices and texts as they stand. */
export interface SumAsked {
  readonly figure: (id: string) => number;
  readonly text: (id: string) => string;
}

/** A small sum of the bench: what it asks, how it is worked, and where its formula stands. */
export interface Sum {
  readonly id: string;
  readonly title: string;
  /** The question it answers, in a line. */
  readonly question: string;
  readonly fields: readonly SumField[];
  readonly formula: string;
  readonly source: string;
  readonly work: (asked: SumAsked) => SumOutcome;
}

/** The outcome of a sum that was worked out. */
export const done = (value: SumWorked): SumOutcome => ({ ok: true, value });

/** The outcome of a sum that one field keeps from being worked out. */
export const refusedAt = (field: string, message: string): SumOutcome => ({
  ok: false,
  problems: [{ field, message }],
});

/** Points of a curve, evenly over a range. */
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
