import { baseFigure, unitNamed } from "../units/quantity";
import { clampAndShunt } from "./clampAndShunt";
import { fanLaw } from "./fanLaw";
import { hoursAndTenths } from "./hoursAndTenths";
import { lampAtVolts } from "./lampAtVolts";
import { loadedDivider } from "./loadedDivider";
import { packForSpeeds } from "./packForSpeeds";
import { spannerSize } from "./spannerSize";
import type { Sum, SumField, SumOutcome, SumProblem } from "./sum";
import { wireDrop } from "./wireDrop";
import { wireForLoad } from "./wireForLoad";

/** Every bench sum, in the order they are listed. */
export const benchSums: readonly Sum[] = [
  wireDrop,
  wireForLoad,
  packForSpeeds,
  clampAndShunt,
  lampAtVolts,
  fanLaw,
  loadedDivider,
  spannerSize,
  hoursAndTenths,
];

/** The bench sum with an id; null if there is none. */
export const sumNamed = (id: string): Sum | null => benchSums.find((sum) => sum.id === id) ?? null;

/** A figure as written in an address or a field: the text and the unit's id. */
export interface Typed {
  readonly text: string;
  readonly unit: string;
}

/** Reads the text of a figure's field: a figure, optionally followed by a unit. */
export function typedFigure(
  field: Extract<SumField, { quantity: string }>,
  text: string,
  unit: string,
): Typed {
  const split =
    /^([+-]?[\d.,]+(?:[eE][+-]?\d+)?)\s*(.*)$/.exec(text.trim()) ?? /^(.*)\s(\S+)$/.exec(text.trim());
  const named = split?.[2] ? unitNamed(field.quantity, split[2]) : null;
  return named && split?.[1] ? { text: split[1], unit: named.id } : { text: text.trim(), unit };
}

/** The input of a sum, field by field; an omitted field has its default. */
export function startOf(sum: Sum): Record<string, Typed> {
  return Object.fromEntries(
    sum.fields.map((field) => [field.id, { text: field.start, unit: "quantity" in field ? field.unit : "" }]),
  );
}

function checked(field: SumField, own: Typed): { readonly base: number } | SumProblem | null {
  if ("text" in field) return own.text === "" ? { field: field.id, message: "Enter a value." } : null;
  if ("choices" in field)
    return field.choices.some(({ id }) => id === own.text)
      ? null
      : { field: field.id, message: `One of ${field.choices.map(({ title }) => title).join(", ")}.` };
  const unit = unitNamed(field.quantity, own.unit);
  const base = unit ? baseFigure(own.text, unit) : null;
  if (base === null || !Number.isFinite(base))
    return {
      field: field.id,
      message: `${field.title}: enter a number, such as ${field.start} or ${field.start} ${field.unit}.`,
    };
  if (base < field.low || base > field.high)
    return {
      field: field.id,
      message: `${field.title}: ${own.text} ${unit?.text ?? ""} is outside the range of this sum.`,
    };
  return { base };
}

/** Works a sum from typed text; if a field cannot be read, it says which one and what to enter instead. */
export function workSum(sum: Sum, asked: Readonly<Record<string, Typed>>): SumOutcome {
  const figures = new Map<string, number>();
  const problems: SumProblem[] = [];
  for (const field of sum.fields) {
    const own = asked[field.id] ?? { text: field.start, unit: "quantity" in field ? field.unit : "" };
    const found = checked(field, own);
    if (found && "message" in found) problems.push(found);
    else if (found) figures.set(field.id, found.base);
  }
  if (problems.length > 0) return { ok: false, problems };
  return sum.work({
    figure: (id) => figures.get(id) as number,
    text: (id) => asked[id]?.text ?? sum.fields.find((field) => field.id === id)?.start ?? "",
  });
}
