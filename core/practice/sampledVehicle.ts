import type { Chance } from "../chance/chance";
import type { CatalogueEntry } from "../fault/catalogue";
import { type Fault, placeFault } from "../fault/fault";
import { type FaultName, faultId } from "../fault/faultId";
import type { Netlist } from "../solve/netlist/netlist";
import { type ModuleValues, nominalValues, type Values } from "../solve/netlist/values";
import type { World } from "./world";

/** Ranges of severities, log-uniform; the engine tries a few points of each. */
const severities: Readonly<Record<string, readonly [number, number]>> = {
  high: [0.25, 30],
  tight: [1.35, 2.8],
  "shorted-turns": [0.45, 0.8],
  "worn-brushes": [0.3, 2],
  low: [9.5, 11.3],
  "filter-blocked": [0.25, 0.6],
  loose: [0.35, 0.75],
  stuck: [0.1, 0.9],
};

/** A fault of the catalogue with a severity of its own. */
export function sampleSeverity(netlist: Netlist, entry: CatalogueEntry, world: World, chance: Chance): Fault {
  const names = entry.fault.names.map((name): FaultName => {
    const range = severities[name.mode];
    if (!range || name.value === null) return name;
    let value = chance.logBetween(range[0], range[1]);
    if (name.mode === "high") value *= world.severity;
    if (name.mode === "tight") value = 1 + (value - 1) * world.severity;
    if (name.mode === "worn-brushes") value *= world.severity;
    return { ...name, value: Number(value.toPrecision(4)) };
  });
  const placed = placeFault(netlist, names);
  if (!placed.ok) throw new Error(`${faultId(names)}: ${placed.problems[0]?.message}`);
  return placed.value;
}

/** Volts between dropping out and waking again. */
const wakesAbove = { low: 0.5, high: 2 } as const;

/** The supply volts at which a control drops out and wakes; they differ from make to make. */
function supplyLimits({ sleepVolts, wakeVolts }: ModuleValues, { dropOutVolts }: World, chance: Chance) {
  if (!dropOutVolts) return { sleepVolts, wakeVolts };
  const sleeps = chance.between(dropOutVolts[0], dropOutVolts[1]);
  return { sleepVolts: sleeps, wakeVolts: sleeps + chance.between(wakesAbove.low, wakesAbove.high) };
}

/** A vehicle's own part values: nominal ones, each off by the world's scatter. */
export function sampleValues(netlist: Netlist, world: World, chance: Chance): Values {
  const nominal = nominalValues(netlist);
  const spread = (half: number): number => 1 + chance.between(-half, half);
  const rest = chance.between(world.restVolts[0], world.restVolts[1]);
  return {
    ohms: Float64Array.from(netlist.branches, (branch) => {
      switch (branch.spread) {
        case "contact":
        case "source":
          return branch.ohms * Math.exp(chance.between(-world.contactSpread, world.contactSpread));
        case "winding":
          return branch.ohms;
        default:
          return branch.ohms * spread(world.elementSpread);
      }
    }),
    restVolts: rest,
    chargingVolts: chance.between(13.8, 14.5),
    motors: nominal.motors.map((motor) => ({
      ...motor,
      ohms: motor.ohms * spread(world.windingSpread),
      k: motor.k * spread(0.04),
      friction: motor.friction * chance.logBetween(world.friction[0], world.friction[1]),
      fan: motor.fan * spread(world.fanSpread),
    })),
    pullInVolts: nominal.pullInVolts.map((volts) => volts * spread(0.12)),
    dropOutVolts: nominal.dropOutVolts.map((volts) => volts * spread(0.15)),
    modules: nominal.modules.map((module) => {
      const span = 0.03 * (module.fullVolts - module.zeroVolts);
      return {
        ...module,
        ...supplyLimits(module, world, chance),
        zeroVolts: module.zeroVolts + span * chance.between(-1, 1),
        fullVolts: module.fullVolts + span * chance.between(-1, 1),
      };
    }),
    heads: nominal.heads.map((head) => ({ ...head, commandTimes: spread(0.02) })),
  };
}
