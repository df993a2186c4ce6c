import type { SolvedState } from "./devices/solvedState";
import type { Netlist } from "./netlist/netlist";
import type { PointSolver } from "./pointSolver";

/** The equivalent source between two open points (Thévenin 1883), for anything that is then connected there. */
export interface OpenCircuit {
  /** 0 if a point floats. */
  readonly volts: number;
  /** Series ohms of the equivalent source; Infinity if a point floats. */
  readonly ohms: number;
  readonly floats: boolean;
}

/**
 * Open-circuit volts and series ohms of two points.
 * @param solver the solver that has just solved the state
 * @param one first lead; names that are not points stand for the reference
 */
export function openCircuit(
  solver: PointSolver,
  solved: SolvedState,
  netlist: Netlist,
  one: string,
  other: string,
): OpenCircuit {
  const [a, b] = [one, other].map((point) => netlist.nodeOf.get(point) ?? -1) as [number, number];
  const floats = [a, b].some((node) => node >= 0 && solved.floating[node] === 1);
  if (floats) return { volts: 0, ohms: Number.POSITIVE_INFINITY, floats };
  const at = (node: number): number => (node < 0 ? 0 : (solved.volts[node] ?? 0));
  return { volts: at(a) - at(b), ohms: solver.ohmsBetween(a, b), floats };
}
