import type { Netlist } from "../solve/netlist/netlist";

/**
 * Returns the point a probe actually touches when a technician is sent to `point` (common practice, no source). A mated plug is reached from
 * behind, at the harness side; a part's own terminal only with that plug off; a relay's sockets only with the relay
 * out; a joint inside the loom not at all. Where the point asked for cannot be reached, the hand goes to the nearest
 * one along the wires that can.
 * @param unplugged the connectors, fuses and relays taken out
 */
export function touched(netlist: Netlist, point: string, unplugged: readonly string[] = []): string {
  const out = new Set(unplugged);
  const met = new Set([point]);
  const queue = [point];
  for (const at of queue) {
    if (isReachable(netlist, at, out)) return at;
    const pin = netlist.points.pinOnTerminal.get(at);
    // The copper of a wire ends at what it is crimped to.
    const wire = netlist.circuit.wires.find(({ id }) => at === `${id}/from` || at === `${id}/to`);
    const ends = wire
      ? [at.endsWith("/to") ? wire.to : wire.from]
      : pin
        ? [pin]
        : netlist.circuit.wires.flatMap(({ from, to }) => (from === at ? [to] : to === at ? [from] : []));
    for (const next of ends) {
      if (met.has(next)) continue;
      met.add(next);
      queue.push(next);
    }
  }
  return point;
}

/** When a probe can touch a point: always, only with a plug or a relay out, or never. */
export type Access =
  | { readonly reach: "always" }
  | { readonly reach: "out"; readonly of: string }
  | { readonly reach: "never" };

const always: Access = { reach: "always" };
const never: Access = { reach: "never" };

/** When a probe can touch a point (common practice, no source). */
export function accessTo({ circuit, points }: Netlist, point: string): Access {
  const owner = points.ownerOf.get(point);
  if (circuit.wires.some(({ id }) => id === owner)) return never;
  const part = circuit.parts.find(({ id }) => id === owner);
  // What is not a part is a plug: its harness side is reached from behind, or from the front with the plug off.
  if (!part) return always;
  const pin = points.pinOnTerminal.get(point);
  if (pin) return { reach: "out", of: pin.slice(0, pin.indexOf(":")) };
  if (part.kind === "splice") return never;
  return part.kind === "relay" ? { reach: "out", of: part.id } : always;
}

/** Whether a probe can touch exactly this point with these things taken out. */
export function isReachable(netlist: Netlist, point: string, unplugged: ReadonlySet<string>): boolean {
  const access = accessTo(netlist, point);
  return access.reach === "always" || (access.reach === "out" && unplugged.has(access.of));
}
