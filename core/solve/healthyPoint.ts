import type { Netlist } from "./netlist/netlist";
import { type OperatingPoint, operatingPoint } from "./operatingPoint";

/** The healthy operating point of one setting, key on. */
export interface HealthyPoint {
  readonly setting: string;
  readonly point: OperatingPoint;
}

type BySetting = readonly HealthyPoint[];
const solved = { engineOff: new WeakMap<Netlist, BySetting>(), engineOn: new WeakMap<Netlist, BySetting>() };

/**
 * The healthy operating point of every setting with the key on, in the circuit's order. They are solved once for each
 * netlist.
 * @param engine whether the engine runs, so that the alternator charges; off by default
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
