import type { CompiledCircuit } from "./compiledCircuit";

/** Node of a point, -1 for the battery's negative; undefined for a name that is no point. */
export function nodeAt(compiled: CompiledCircuit, point: string): number | undefined {
  return compiled.netlist.points.ownerOf.has(point) ? compiled.netlist.nodeOf.get(point) : undefined;
}

/** The problem of a name that is no point of this circuit. */
export function pointProblems(
  compiled: CompiledCircuit,
  points: Readonly<Record<string, string>>,
): { path: string; message: string }[] {
  return Object.entries(points).flatMap(([path, point]) =>
    nodeAt(compiled, point) === undefined
      ? [{ path, message: `no point ${JSON.stringify(point)} in this circuit` }]
      : [],
  );
}

/** The battery's two posts by name. */
export function batteryPosts(compiled: CompiledCircuit): { plus: string; minus: string } {
  const { id } = compiled.netlist.battery;
  return { plus: `${id}.+`, minus: `${id}.-` };
}

/**
 * Points worth suggesting: harness pins, and the terminals no plug covers. A wire's ends, a splice
 * under its tape and a part's own side of a plug are left to those who ask for them.
 */
export function suggestedPoints(compiled: CompiledCircuit): string[] {
  const { points, circuit } = compiled.netlist;
  const wires = new Set(circuit.wires.map(({ id }) => id));
  const splices = new Set(circuit.parts.filter(({ kind }) => kind === "splice").map(({ id }) => id));
  return points.names.filter((name) => {
    if (wires.has(points.ownerOf.get(name) ?? "")) return false;
    return !points.pinOnTerminal.has(name) && !splices.has(points.ownerOf.get(name) ?? "");
  });
}
