import type { Circuit } from "../circuit/circuit";
import type { PartKind } from "../circuit/parts/index";

/**
 * Probability per year that a part in good condition today fails, by kind (judgements, no source; a shop's own counts
 * are better).
 */
export const yearlyFailure: Readonly<Partial<Record<PartKind | "connector", number>>> = {
  motor: 0.04,
  resistor: 0.03,
  module: 0.03,
  relay: 0.015,
  fuse: 0.005,
  selector: 0.01,
  head: 0.01,
  connector: 0.015,
};
const otherFailure = 0.005;

/** What something of a circuit fails as: its kind, or as a plug, which wires count as too. */
export const failureKind = (circuit: Circuit, id: string): PartKind | "connector" =>
  circuit.parts.find((part) => part.id === id)?.kind ?? "connector";

/**
 * Probability that a part fails within a warranty: the doubt about it today, and for the rest its kind's yearly
 * probability, constant in time: p + (1 − p)(1 − (1 − y)^(months / 12)).
 * @param doubt belief that it is faulty already
 */
export function failsWithin(kind: PartKind | "connector", months: number, doubt: number): number {
  const survives = (1 - (yearlyFailure[kind] ?? otherFailure)) ** (months / 12);
  return doubt + (1 - doubt) * (1 - survives);
}
