import type { Circuit } from "../circuit/circuit";
import type { BelievedCandidate, WiringBelief } from "./wiringBelief";

/** The two ends of a wire, in either order. */
const endsOf = ({ from, to }: Circuit["wires"][number]): string => [from, to].sort().join(" ");

/** A part with what it is: a control that switches the other side is another part. */
const partOf = (part: Circuit["parts"][number]): string =>
  part.kind === "module" ? `${part.id} ${part.side}` : `${part.id} ${part.kind}`;

const drawn = ({ candidate: { circuit } }: BelievedCandidate): Set<string> =>
  new Set([...circuit.parts.map(partOf), ...circuit.wires.map(endsOf)]);

/**
 * How likely each part and wire of the likeliest wiring is not there, or is wired otherwise: the share of the wirings
 * without it. By id.
 */
export function wiringDoubt({ candidates }: WiringBelief): Record<string, number> {
  const [first] = candidates;
  if (!first) return {};
  const shares = new Map<string, number>();
  for (const own of candidates)
    for (const item of drawn(own)) shares.set(item, (shares.get(item) ?? 0) + own.p);
  const { parts, wires } = first.candidate.circuit;
  const doubt = (item: string): number => Math.max(0, 1 - (shares.get(item) ?? 0));
  return Object.fromEntries([
    ...parts.map((part) => [part.id, doubt(partOf(part))] as const),
    ...wires.map((wire) => [wire.id, doubt(endsOf(wire))] as const),
  ]);
}
