import type { Netlist } from "../solve/netlist/netlist";
import { observationOf } from "./observations/index";
import type { Test } from "./reading";

/**
 * The point a hand really touches when it is sent to a point (common practice, no source). A mated plug is reached from
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

/** Whether a probe can touch exactly this point with these things taken out. */
export function isReachable(netlist: Netlist, point: string, unplugged: ReadonlySet<string>): boolean {
  const { circuit, points } = netlist;
  const owner = points.ownerOf.get(point);
  if (circuit.wires.some(({ id }) => id === owner)) return false;
  const part = circuit.parts.find(({ id }) => id === owner);
  // What is not a part is a plug: its harness side is reached from behind, or from the front with the plug off.
  if (!part) return true;
  const pin = points.pinOnTerminal.get(point);
  if (pin) return unplugged.has(pin.slice(0, pin.indexOf(":")));
  if (part.kind === "splice") return false;
  return part.kind !== "relay" || unplugged.has(part.id);
}

/** The points a test names, by key. */
function pointsOf(test: Test): [key: string, point: string][] {
  const { pick } = observationOf(test.test).form;
  if (pick.kind !== "points") return [];
  return pick.keys.flatMap((key) => {
    const point: unknown = Reflect.get(test, key);
    return typeof point === "string" ? [[key, point] as [string, string]] : [];
  });
}

/** The test a hand really does when it is sent to do this one: the same, at the points it can touch. */
export function testAsTouched<T extends Test>(netlist: Netlist, test: T): T {
  const points = pointsOf(test).map(([key, point]) => [key, touched(netlist, point, test.unplugged)]);
  return { ...test, ...Object.fromEntries(points) };
}

/** Whether a test names a point no probe can touch in its set-up. */
export const asksTheUnreachable = (netlist: Netlist, test: Test): boolean =>
  pointsOf(test).some(([, point]) => !isReachable(netlist, point, new Set(test.unplugged)));
