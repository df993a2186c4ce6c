import { type MotorConstants, motorConstants } from "../../motor/motorConstants";
import type { Netlist } from "./netlist";

/** The part values of one vehicle: nominal, or sampled within the tolerances. */
export interface Values {
  /** Ohms of every branch. */
  readonly ohms: Float64Array;
  readonly restVolts: number;
  readonly chargingVolts: number;
  readonly motors: readonly MotorConstants[];
  readonly pullInVolts: Float64Array;
  readonly dropOutVolts: Float64Array;
  /** By control module: command volts at duty 0 and 1, and the supply volts at which it wakes and sleeps. */
  readonly modules: readonly ModuleValues[];
  /** By panel: a factor on its command volts, and the volts it needs on each feed. */
  readonly heads: readonly ClimatePanelValues[];
}

export interface ModuleValues {
  readonly zeroVolts: number;
  readonly fullVolts: number;
  readonly wakeVolts: number;
  readonly sleepVolts: number;
}

export interface ClimatePanelValues {
  readonly commandTimes: number;
  readonly feedVolts: number;
}

const wakeVolts = 7;
const sleepVolts = 5;
const feedVolts = 6;

/** A relay drops out at this share of its pull-in volts unless the file says otherwise. */
const dropOutShare = 0.4;

/** The values the circuit file states. */
export function nominalValues(netlist: Netlist): Values {
  const battery = netlist.circuit.parts.find((part) => part.kind === "battery");
  return {
    ohms: Float64Array.from(netlist.branches, (branch) => branch.ohms),
    restVolts: battery?.restVolts ?? 0,
    chargingVolts: battery?.chargingVolts ?? 0,
    motors: netlist.motors.map(({ part }) => motorConstants(part)),
    pullInVolts: Float64Array.from(netlist.relays, ({ part }) => part.pullInVolts),
    dropOutVolts: Float64Array.from(
      netlist.relays,
      ({ part }) => part.dropOutVolts ?? dropOutShare * part.pullInVolts,
    ),
    modules: netlist.modules.map(({ part }) => ({
      zeroVolts: part.commandVolts[0],
      fullVolts: part.commandVolts[1],
      wakeVolts: part.wakeVolts ?? wakeVolts,
      sleepVolts: part.sleepVolts ?? sleepVolts,
    })),
    heads: netlist.heads.map(({ part }) => ({ commandTimes: 1, feedVolts: part.feedVolts ?? feedVolts })),
  };
}
