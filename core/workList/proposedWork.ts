import type { Circuit } from "../circuit/circuit";
import { damageLeft } from "../diagnose/verdict/damageSeen";
import { theCar } from "../fault/repair";
import type { Reading } from "../predict/reading";
import type { WorkDone, WorkLine } from "./workLine";

/** Why a line of work is proposed: the verdict names the part, or it was seen damaged. */
export type WorkReason = { readonly kind: "verdict" } | { readonly kind: "seen"; readonly seen: string };

/** A line of work that the job so far asks for. */
export interface ProposedWork {
  readonly part: string;
  readonly done: WorkDone;
  readonly reason: WorkReason;
}

/**
 * What is usually done to a faulty part (common practice, no source): a plug is replaced by a new one with leads, a
 * wire is repaired, a ground point is cleaned, everything else is renewed.
 */
export function usualWork({ parts, connectors, wires }: Circuit, id: string): WorkDone {
  if (connectors.some((own) => own.id === id)) return "spliced";
  if (wires.some((own) => own.id === id)) return "repaired";
  if (id === theCar) return "cleaned";
  const kind = parts.find((own) => own.id === id)?.kind;
  if (kind === "ground" || kind === "splice") return "cleaned";
  return kind === "inline" ? "spliced" : "renewed";
}

/** What is done about something seen (common practice, no source). */
function workOn(circuit: Circuit, at: string, seen: string): WorkDone {
  if (seen === "wet") return "leak-stopped";
  return seen === "melted" || seen === "blown" ? usualWork(circuit, at) : "cleaned";
}

/**
 * The lines of work that a verdict and the damage seen ask for, the root cause first. Parts that are on the list
 * already are left out.
 * @param replace parts of the verdict; none while it is open
 */
export function proposedWork(
  circuit: Circuit,
  replace: readonly string[],
  readings: readonly Reading[],
  lines: readonly WorkLine[],
): ProposedWork[] {
  const listed = new Set(lines.map(({ part }) => part));
  const named = replace.map(
    (part): ProposedWork => ({ part, done: usualWork(circuit, part), reason: { kind: "verdict" } }),
  );
  const seen = damageLeft(readings, replace).map(
    (own): ProposedWork => ({
      part: own.at,
      done: workOn(circuit, own.at, own.seen),
      reason: { kind: "seen", seen: own.seen },
    }),
  );
  return [...named, ...seen].filter(({ part }) => !listed.has(part));
}
