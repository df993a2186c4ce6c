import type { Netlist } from "./netlist/netlist";
import { type OperatingPoint, operatingPoint } from "./operatingPoint";

/** How a healthy vehicle stands in one setting, key on. */
export interface HealthyPoint {
  readonly setting: string;
  readonly point: OperatingPoint;
}

const solved = new WeakMap<Netlist, readonly HealthyPoint[]>();

/** The healthy circuit in every setting, key on, in the circuit's order; solved once for a netlist. */
export function healthyPoints(netlist: Netlist): readonly HealthyPoint[] {
  const known = solved.get(netlist);
  if (known) return known;
  const points = netlist.circuit.settings.map((setting) => ({
    setting,
    point: operatingPoint(netlist, { key: "run", setting }, []),
  }));
  solved.set(netlist, points);
  return points;
}
