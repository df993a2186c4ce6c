import { busPoints } from "../circuit/declined";
import type { Problem } from "../problem/problem";
import { isReachable } from "./reach";
import type { CompiledCircuit, LiveSetup } from "./tables/compiledCircuit";

/** Node of a point, -1 for the battery's negative post; undefined for a name that is not a point. */
export function nodeAt(compiled: CompiledCircuit, point: string): number | undefined {
  return compiled.netlist.points.ownerOf.has(point) ? compiled.netlist.nodeOf.get(point) : undefined;
}

/** The problem of a name that is not a point of this circuit. */
export function pointProblems(
  compiled: CompiledCircuit,
  points: Readonly<Record<string, string>>,
): Problem[] {
  return Object.entries(points).flatMap(([path, point]) =>
    nodeAt(compiled, point) === undefined
      ? [{ code: "no-such-thing", path, message: `no point ${JSON.stringify(point)} in this circuit` }]
      : [],
  );
}

/** The names of the battery's two posts. */
export function batteryPosts(compiled: CompiledCircuit): { plus: string; minus: string } {
  const { id } = compiled.netlist.battery;
  return { plus: `${id}.+`, minus: `${id}.-` };
}

const nothingOut: ReadonlySet<string> = new Set();

/**
 * Points worth suggesting with everything plugged in: those a probe can touch. Points on the same node are suggested
 * once.
 */
export function suggestedPoints({ netlist }: CompiledCircuit): string[] {
  const bus = busPoints(netlist.circuit);
  const met = new Set<number>();
  return netlist.points.names.filter((name) => {
    const node = netlist.nodeOf.get(name) ?? -1;
    if (!isReachable(netlist, name, nothingOut) || bus.has(name) || met.has(node)) return false;
    met.add(node);
    return true;
  });
}

/** A point, and what is on and what is out while it is touched. */
export interface ProbedSetup {
  readonly point: string;
  readonly setup: LiveSetup & { readonly unplugged?: string[] };
}

/**
 * Every point worth suggesting with the set-ups it is worth touching in: all points in all of them, and each relay's
 * sockets with that relay out, on the strongest setting.
 */
export function suggestedProbes(compiled: CompiledCircuit): ProbedSetup[] {
  const { netlist } = compiled;
  const { plus, minus } = batteryPosts(compiled);
  const points = suggestedPoints(compiled).filter((point) => point !== plus && point !== minus);
  const top = compiled.runningSetups().at(-1);
  const plugged = points.flatMap((point) => compiled.probingSetups().map((setup) => ({ point, setup })));
  if (!top) return plugged;
  const sockets = netlist.relays.flatMap(({ part: { id } }) =>
    ["30", "86", "85", "87"]
      .map((contact) => `${id}.${contact}`)
      .filter((point) => netlist.nodeOf.has(point) && !netlist.points.pinOnTerminal.has(point))
      .map((point) => ({ point, setup: { ...top, unplugged: [id] } })),
  );
  return [...plugged, ...sockets];
}
