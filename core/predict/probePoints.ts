import { busPoints } from "../circuit/declined";
import type { Problem } from "../problem/problem";
import type { CompiledCircuit } from "./tables/compiledCircuit";

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

/**
 * Points worth suggesting: every pin from the wire side and every terminal, plugged or not. Wire ends are left out.
 * Points on the same node are suggested once.
 */
export function suggestedPoints(compiled: CompiledCircuit): string[] {
  const { points, circuit, nodeOf } = compiled.netlist;
  const wires = new Set(circuit.wires.map(({ id }) => id));
  const bus = busPoints(circuit);
  const met = new Set<number>();
  return points.names.filter((name) => {
    const node = nodeOf.get(name) ?? -1;
    if (wires.has(points.ownerOf.get(name) ?? "") || bus.has(name) || met.has(node)) return false;
    met.add(node);
    return true;
  });
}
