import { type MotorConstants, motorConstants } from "../motor/motorConstants";
import type { Netlist } from "./netlist";

/** The part values of one vehicle: nominal, or drawn from the tolerances. */
export interface Values {
  /** Ohms of every branch. */
  readonly ohms: Float64Array;
  readonly restVolts: number;
  readonly chargingVolts: number;
  readonly motors: readonly MotorConstants[];
  readonly pullInVolts: Float64Array;
  readonly dropOutVolts: Float64Array;
}

/** A pulled-in relay lets go at this share of its pull-in volts unless the file says otherwise. */
const dropOutShare = 0.4;

/** The values as the circuit file states them. */
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
  };
}
