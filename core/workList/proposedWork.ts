import { adaptationFacts } from "../access/adaptation";
import type { FittingStep } from "../access/fittingStep";
import type { Circuit } from "../circuit/circuit";
import { damageLeft } from "../diagnose/verdict/damageSeen";
import { theCar } from "../fault/repair";
import type { WorkDone } from "../labour/workDone";
import { plugOf } from "../match/spliceLeads";
import type { Reading } from "../predict/reading";
import type { WorkLine } from "./workLine";

/** Why a line of work is proposed: by the verdict, by damage seen, by a new part chosen, or because that part differs. */
export type WorkReason =
  | { readonly kind: "verdict" }
  | { readonly kind: "seen"; readonly seen: string }
  | { readonly kind: "part"; readonly number: string }
  | { readonly kind: "chosen" };

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
 * @param chosen parts that a new one is chosen for
 */
export function proposedWork(
  circuit: Circuit,
  replace: readonly string[],
  readings: readonly Reading[],
  lines: readonly WorkLine[],
  chosen: readonly string[] = [],
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
  const proposed = [...named, ...seen];
  const others = chosen.filter((part) => proposed.every((own) => own.part !== part));
  const renewals = others.map(
    (part): ProposedWork => ({ part, done: "renewed", reason: { kind: "chosen" } }),
  );
  return [...proposed, ...renewals].filter(({ part }) => !listed.has(part));
}

/** A line of work that a new part asks for, because it differs from the old one. */
export interface ProposedFitting {
  readonly fitting: FittingStep;
  /** The plug of the circuit that a splice renews; null for every other work. */
  readonly plug: string | null;
  readonly done: WorkDone;
  readonly reason: WorkReason;
}

/**
 * The lines of work that the new parts of a job ask for. What is on the list already, by its adaptation or as the
 * same plug spliced, is left out.
 */
export function proposedFittings(
  circuit: Circuit,
  fittings: readonly { readonly fitting: FittingStep; readonly number: string }[],
  lines: readonly WorkLine[],
): ProposedFitting[] {
  return fittings.flatMap(({ fitting, number }): ProposedFitting[] => {
    const { done } = adaptationFacts[fitting.adaptation.work];
    const plug = done === "spliced" ? plugOf(circuit, fitting.part) : null;
    const isListed = lines.some(
      ({ adapts, part, done: listed }) =>
        (adapts?.part === fitting.part && adapts.work === fitting.adaptation.work) ||
        (plug !== null && part === plug && listed === "spliced"),
    );
    return isListed ? [] : [{ fitting, plug, done, reason: { kind: "part", number } }];
  });
}
