import type { Circuit } from "@core/circuit/circuit";
import type { Diagnosis } from "@core/diagnose/diagnose";
import { sameParts } from "@core/fault/repair";
import { faultWords, repairName } from "./partName";
import { capitalised } from "./seenName";

/** Names of parts as alternatives: `wire W2`, `wire W2 or wire W3`. */
const either = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} or ${names.at(-1) ?? ""}`;

/** What a verdict names: its parts, and those that no test tells from them. */
export const verdictName = (circuit: Circuit, { verdict }: Pick<Diagnosis, "verdict">): string =>
  either([verdict.replace, ...verdict.orElse].map((parts) => repairName(circuit, parts)));

/** Share of a verdict's probability above which its likeliest fault is named (judgement). */
const namedShare = 0.6;

/**
 * The fault a verdict names: the likeliest of its parts, if it carries most of the verdict's probability.
 * @returns its id; null if none does
 */
function verdictFault({ verdict, suspects }: Pick<Diagnosis, "verdict" | "suspects">): string | null {
  const found = suspects.find(({ repair }) => sameParts(repair.parts, verdict.replace));
  return found && found.p >= namedShare * verdict.p ? found.fault : null;
}

/** The heading of a verdict: `blower motor M1: dry bearing`; without the failure where it is not known. */
export function verdictTitle(circuit: Circuit, diagnosis: Pick<Diagnosis, "verdict" | "suspects">): string {
  const name = verdictName(circuit, diagnosis);
  const fault = diagnosis.verdict.orElse.length > 0 ? null : verdictFault(diagnosis);
  const title = fault === null ? name : `${name}: ${faultWords(fault)}`;
  return capitalised(title);
}
