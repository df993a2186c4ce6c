import { rpmOf } from "../motor/motorConstants";
import type { Change } from "./netlist/change";
import type { Device, Netlist } from "./netlist/netlist";
import { type Setup, setupState } from "./netlist/setup";
import { nominalValues, type Values } from "./netlist/values";
import { PointSolver, type SolvedState } from "./pointSolver";

/** An operating point by names, as the command line prints it. */
export interface OperatingPoint {
  /** Volts against the battery's negative post; null if floating. */
  readonly volts: Readonly<Record<string, number | null>>;
  /** Points without a path to anything. */
  readonly floating: readonly string[];
  /** Amps of wires, motors, fuses, elements and coils. */
  readonly amps: Readonly<Record<string, number>>;
  /** Watts of elements, wires (with their end contacts) and pins. */
  readonly watts: Readonly<Record<string, number>>;
  readonly rpm: Readonly<Record<string, number>>;
  /** Relays, control modules and panels that never settle; the values are then the average of their two states. */
  readonly buzzing: readonly string[];
}

/** Ids of the branches whose amps are reported, by kind of owner. */
function reportsAmps(netlist: Netlist, id: string): boolean {
  const branch = netlist.branches[netlist.branchOf.get(id) ?? -1];
  if (!branch) return false;
  if (branch.spread === "wire" || branch.spread === "winding" || branch.spread === "fuse") return true;
  return branch.spread === "coil" || isElement(netlist, id);
}

function isElement(netlist: Netlist, id: string): boolean {
  const part = netlist.circuit.parts.find((candidate) => id.startsWith(`${candidate.id}.`));
  return part?.kind === "resistor";
}

/**
 * Solves one set-up of a circuit and names the results.
 * @param changes what a fault changes; empty for a healthy circuit
 */
export function operatingPoint(
  netlist: Netlist,
  setup: Setup,
  changes: readonly Change[] = [],
  values: Values = nominalValues(netlist),
  solver: PointSolver = new PointSolver(netlist),
): OperatingPoint {
  const solved = solver.solve(values, setupState(netlist, setup), changes);
  return nameState(netlist, solved);
}

function deviceId(netlist: Netlist, { kind, index }: Device): string {
  const lists = { relay: netlist.relays, module: netlist.modules, head: netlist.heads };
  return lists[kind][index]?.part.id ?? "";
}

/** Gives a solved state's numbers their names. */
export function nameState(netlist: Netlist, solved: SolvedState): OperatingPoint {
  const volts: Record<string, number | null> = {};
  const floating: string[] = [];
  for (const name of netlist.points.names) {
    const node = netlist.nodeOf.get(name) ?? -1;
    const lost = node >= 0 && solved.floating[node] === 1;
    volts[name] = lost ? null : node < 0 ? 0 : (solved.volts[node] ?? 0);
    if (lost) floating.push(name);
  }
  const amps: Record<string, number> = {};
  const watts: Record<string, number> = {};
  const heat = (branch: number): number => {
    const ohms = solved.ohms[branch] ?? 0;
    const current = solved.amps[branch] ?? 0;
    return Number.isFinite(ohms) ? current * current * ohms : 0;
  };
  netlist.branches.forEach((branch, index) => {
    if (reportsAmps(netlist, branch.id)) amps[branch.id] = solved.amps[index] ?? 0;
    const isPin = branch.id.includes(":");
    if (branch.spread === "wire") {
      const ends = [`${branch.id}/from`, `${branch.id}/to`];
      watts[branch.id] = ends.reduce((sum, end) => sum + heat(netlist.branchOf.get(end) ?? -1), heat(index));
    } else if (isPin || isElement(netlist, branch.id)) watts[branch.id] = heat(index);
  });
  return {
    volts,
    floating,
    amps,
    watts,
    rpm: Object.fromEntries(
      netlist.motors.map(({ part }, index) => [part.id, rpmOf(solved.speeds[index] ?? 0)]),
    ),
    buzzing: netlist.devices.flatMap((device, index) =>
      solved.buzzing[index] === 1 ? [deviceId(netlist, device)] : [],
    ),
  };
}
