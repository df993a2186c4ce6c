import type { Circuit } from "./circuit";
import type { Part } from "./parts/index";

/** A part whose inside is another job, and why. */
export interface Declined {
  readonly part: string;
  readonly why: string;
}

const onBus = (part: Part): boolean => (part.kind === "module" || part.kind === "head") && part.bus === true;
const isBrushless = (part: Part): boolean => part.kind === "motor" && part.brushless === true;

/**
 * What Airway recognises and leaves to the maker's procedure: controls that talk over a data bus, and
 * brushless motors. Their feeds, grounds and fuses it still proves.
 */
export function declinedParts(circuit: Circuit): Declined[] {
  return circuit.parts.flatMap((part): Declined[] => {
    if (onBus(part))
      return [
        {
          part: part.id,
          why: `${part.id} talks over a data bus: Airway proves its fuses, feeds and grounds; what is said on the bus is the maker's procedure.`,
        },
      ];
    if (isBrushless(part))
      return [
        {
          part: part.id,
          why: `${part.id} is brushless: Airway proves its fuses, feeds and grounds; its electronics are the maker's procedure.`,
        },
      ];
    return [];
  });
}

/** Points that carry bus messages, where volts and a light mean nothing. */
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
