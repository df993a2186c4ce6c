import type { Circuit } from "@core/circuit/circuit";
import type { Diagnosis } from "@core/diagnose/diagnose";
import { faultWords, repairName } from "./partName";

/** Names of parts as alternatives: `wire W2`, `wire W2 or wire W3`. */
const either = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? "") : `${names.slice(0, -1).join(", ")} or ${names.at(-1) ?? ""}`;

/** What a verdict names: its parts, and those that no test tells from them. */
export const verdictName = (circuit: Circuit, { verdict }: Pick<Diagnosis, "verdict">): string =>
  either([verdict.replace, ...verdict.orElse].map((parts) => repairName(circuit, parts)));

/** The likeliest fault of the parts a verdict names: its id; null if nothing on the list is named. */
export const verdictFault = ({ verdict, suspects }: Pick<Diagnosis, "verdict" | "suspects">): string | null =>
  suspects.find(
    ({ fault, repair }) => fault !== null && repair.parts.every((id) => verdict.replace.includes(id)),
  )?.fault ?? null;

/** The heading of a verdict: `blower motor M1: dry bearing`. Parts that no test separates are named without it. */
export function verdictTitle(circuit: Circuit, diagnosis: Pick<Diagnosis, "verdict" | "suspects">): string {
  const name = verdictName(circuit, diagnosis);
  const fault = diagnosis.verdict.orElse.length > 0 ? null : verdictFault(diagnosis);
  const title = fault === null ? name : `${name}: ${faultWords(fault)}`;
  return title.charAt(0).toUpperCase() + title.slice(1);
}
