import type { Circuit } from "./circuit";
import type { Part } from "./parts/index";

/** A part Airway does not look inside: it uses a data bus, or is a brushless motor. */
export interface Declined {
  readonly part: string;
  readonly reason: "data-bus" | "brushless";
}

const onBus = (part: Part): boolean => (part.kind === "module" || part.kind === "head") && part.bus === true;
const isBrushless = (part: Part): boolean => part.kind === "motor" && part.brushless === true;

/**
 * The parts Airway recognises and leaves to the maker's procedure: modules on a data bus, and brushless motors. It
 * still tests their feeds, grounds and fuses.
 */
export function declinedParts(circuit: Circuit): Declined[] {
  return circuit.parts.flatMap((part): Declined[] => {
    if (onBus(part)) return [{ part: part.id, reason: "data-bus" }];
    return isBrushless(part) ? [{ part: part.id, reason: "brushless" }] : [];
  });
}

/** Points that carry bus messages, where voltage and test light tell nothing. */
export function busPoints(circuit: Circuit): Set<string> {
  const terminals = new Set(circuit.parts.filter(onBus).map(({ id }) => `${id}.cmd`));
  const points = new Set(terminals);
  for (const { id, pins } of circuit.connectors) {
    for (const [pin, terminal] of Object.entries(pins))
      if (terminals.has(terminal)) points.add(`${id}:${pin}`);
  }
  for (const { id, from, to } of circuit.wires) {
    if (terminals.has(from) || terminals.has(to)) points.add(`${id}/from`).add(`${id}/to`).add(from).add(to);
  }
  return points;
}
