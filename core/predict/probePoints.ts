import { busPoints } from "../circuit/declined";
import type { CompiledCircuit, LiveSetup } from "./compiledCircuit";

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
 * Points worth suggesting: every pin from its wire's side and every terminal, plugged or not; a wire's
 * ends are left to those who ask for them. Points that are one node are suggested once.
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

/** Healthy volts nearer than this are the same to a light. */
const alikeVolts = 0.5;

/**
 * Set-ups worth probing a node in: those in which a sound vehicle shows different volts there, and always
 * the strongest, which draws most. A point on the feed is the same in every speed.
 */
export function tellingSetups(compiled: CompiledCircuit, node: number): LiveSetup[] {
  const setups = compiled.probingSetups();
  const kept: { readonly setup: LiveSetup; readonly volts: number }[] = [];
  setups.forEach((setup, index) => {
    const volts = compiled.table(setup).voltsAt(0, 0, node);
    const alike = kept.some(
      (one) => Math.abs(one.volts - volts) < alikeVolts || (Number.isNaN(one.volts) && Number.isNaN(volts)),
    );
    if (!alike || setup.selectors || index === setups.length - 1) kept.push({ setup, volts });
  });
  return kept.map(({ setup }) => setup);
}
