import type { SolvedState } from "./devices/solvedState";
import type { Netlist } from "./netlist/netlist";
import type { PointSolver } from "./pointSolver";

/** What stands between two points with nothing on them: an equivalent source (Thévenin 1883), for whatever is put there. */
export interface OpenCircuit {
  /** 0 where a point floats. */
  readonly volts: number;
  /** Ohms behind the points; Infinity where one floats. */
  readonly ohms: number;
  readonly floats: boolean;
}

/**
 * Open volts and the ohms behind two points.
 * @param solver that has just solved the state
 * @param one first lead; names that are no point stand for the reference
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
