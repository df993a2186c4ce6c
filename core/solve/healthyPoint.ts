import type { Netlist } from "./netlist/netlist";
import { type OperatingPoint, operatingPoint } from "./operatingPoint";

/** How a healthy vehicle stands in one setting, key on. */
export interface HealthyPoint {
  readonly setting: string;
  readonly point: OperatingPoint;
}

type BySetting = readonly HealthyPoint[];
const solved = { engineOff: new WeakMap<Netlist, BySetting>(), engineOn: new WeakMap<Netlist, BySetting>() };

/**
 * The healthy circuit in every setting, key on, in the circuit's order; solved once for a netlist.
 * @param engine whether the engine runs, so that the alternator charges; off unless said otherwise
 */
export function healthyPoints(netlist: Netlist, { engine = false } = {}): BySetting {
  const known = engine ? solved.engineOn : solved.engineOff;
  const points =
    known.get(netlist) ??
    netlist.circuit.settings.map((setting) => ({
      setting,
      point: operatingPoint(netlist, { key: "run", engine, setting }, []),
    }));
  known.set(netlist, points);
  return points;
}
