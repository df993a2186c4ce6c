import { healthyPoints } from "../healthyPoint";
import type { Netlist } from "../netlist/netlist";

const leastAmps = 1e-4;

/** The direction of current on the healthy vehicle, over all settings. */
export interface FeedSides {
  /** True if current enters the part at this terminal; absent if no current ever flows. */
  readonly enters: ReadonlyMap<string, boolean>;
  /** True if a wire carries current from `to` to `from`, against its own direction. */
  readonly backwards: ReadonlySet<string>;
}

/** Finds the feed side of every terminal from the currents of the healthy circuit with the key on. */
export function feedSides(netlist: Netlist): FeedSides {
  const inflow = new Map<string, number>();
  const carried = new Map<string, number>();
  const add = (sums: Map<string, number>, key: string, amps: number): void =>
    void sums.set(key, (sums.get(key) ?? 0) + amps);
  for (const { point } of healthyPoints(netlist)) {
    for (const wire of netlist.circuit.wires) {
      const amps = point.amps[wire.id] ?? 0;
      add(inflow, wire.to, amps);
      add(inflow, wire.from, -amps);
      add(carried, wire.id, amps);
    }
  }
  const moving = [...inflow].filter(([, amps]) => Math.abs(amps) > leastAmps);
  return {
    enters: new Map(moving.map(([terminal, amps]) => [terminal, amps > 0])),
    backwards: new Set([...carried].filter(([, amps]) => amps < -leastAmps).map(([id]) => id)),
  };
}
