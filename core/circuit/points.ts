import type { Circuit } from "./circuit";
import { terminalsOf } from "./parts/index";

/** Everything a probe can touch, and how each harness pin pairs with its part's own terminal. */
export interface CircuitPoints {
  /** Every terminal, harness pin and wire end, in file order. */
  readonly names: readonly string[];
  /** The harness pin plugged onto a terminal: `R1.T1` → `X5:1`. */
  readonly pinOnTerminal: ReadonlyMap<string, string>;
  /** The item a point belongs to: part for a terminal, connector for a pin, wire for a wire end. */
  readonly ownerOf: ReadonlyMap<string, string>;
}

/** Terminal references in wires and pins; they make an inner name of a resistor pack a real terminal. */
function usedReferences(circuit: Circuit): Set<string> {
  const used = new Set<string>();
  for (const wire of circuit.wires) used.add(wire.from).add(wire.to);
  for (const connector of circuit.connectors) {
    for (const terminal of Object.values(connector.pins)) used.add(terminal);
  }
  return used;
}

/** The points of a circuit. A pack's internal names and an unused `87a` are not points. */
export function circuitPoints(circuit: Circuit): CircuitPoints {
  const used = usedReferences(circuit);
  const ownerOf = new Map<string, string>();
  const pinOnTerminal = new Map<string, string>();
  for (const part of circuit.parts) {
    for (const terminal of terminalsOf(part)) {
      const name = `${part.id}.${terminal}`;
      const optional = part.kind === "resistor" || terminal === "87a";
      if (!optional || used.has(name)) ownerOf.set(name, part.id);
    }
  }
  for (const connector of circuit.connectors) {
    for (const [pin, terminal] of Object.entries(connector.pins)) {
      ownerOf.set(`${connector.id}:${pin}`, connector.id);
      pinOnTerminal.set(terminal, `${connector.id}:${pin}`);
    }
  }
  for (const wire of circuit.wires) {
    ownerOf.set(`${wire.id}/from`, wire.id);
    ownerOf.set(`${wire.id}/to`, wire.id);
  }
  return { names: [...ownerOf.keys()], pinOnTerminal, ownerOf };
}
