import type { Circuit } from "../circuit/circuit";
import { healthyPoints } from "../solve/healthyPoint";
import type { Netlist } from "../solve/netlist/netlist";
import type { Typed } from "./benchSums";

/** Values a sum can take from a circuit: what they describe, and the figures. */
export interface SumStart {
  readonly sum: string;
  readonly title: string;
  readonly asked: Readonly<Record<string, Typed>>;
}

const figure = (value: number, unit: string): Typed => ({ text: String(Number(value.toPrecision(4))), unit });

/** The values the bench sums can take from a healthy circuit at its strongest setting. */
export function startsFrom(netlist: Netlist): SumStart[] {
  const { circuit } = netlist;
  const strongest = healthyPoints(netlist).at(-1);
  if (!strongest) return [];
  const { setting: top, point } = strongest;
  const { amps, rpm, volts } = point;
  const battery = circuit.parts.find(({ kind }) => kind === "battery");
  const supply = battery?.kind === "battery" ? battery.restVolts : 12.6;
  const motors = circuit.parts.flatMap((part) => (part.kind === "motor" ? [part] : []));
  return [
    ...wireStarts(circuit, amps, supply),
    ...motors.flatMap((motor): SumStart[] => {
      const across = Math.abs((volts[`${motor.id}.+`] ?? 0) - (volts[`${motor.id}.-`] ?? 0));
      return [
        {
          sum: "pack",
          title: `motor ${motor.id}`,
          asked: {
            supply: figure(across > 1 ? across : supply, "V"),
            ratedVolts: figure(motor.ratedVolts, "V"),
            ratedAmps: figure(motor.ratedAmps, "A"),
            stallAmps: figure(motor.stallAmps, "A"),
            ratedRpm: figure(motor.ratedRpm, "rpm"),
          },
        },
        {
          sum: "motor-watts",
          title: `motor ${motor.id} on ${top}`,
          asked: {
            volts: figure(across, "V"),
            amps: figure(Math.abs(amps[motor.id] ?? 0), "A"),
            now: figure(Math.max(1, rpm[motor.id] ?? 1), "rpm"),
          },
        },
        {
          sum: "wire-and-fuse",
          title: `motor ${motor.id}`,
          asked: {
            watts: figure(motor.ratedVolts * motor.ratedAmps, "W"),
            supply: figure(motor.ratedVolts, "V"),
          },
        },
      ];
    }),
    { sum: "divider", title: "this battery", asked: { supply: figure(supply, "V") } },
    { sum: "lamp", title: "this battery", asked: { volts: figure(supply, "V") } },
  ];
}

/** Wires of known length, by the current they carry. */
function wireStarts({ wires }: Circuit, amps: Readonly<Record<string, number>>, supply: number): SumStart[] {
  return wires
    .filter(({ metres }) => metres > 0)
    .map((wire) => ({ ...wire, amps: Math.abs(amps[wire.id] ?? 0) }))
    .sort((a, b) => b.amps - a.amps)
    .map((wire) => ({
      sum: "wire-drop",
      title: `wire ${wire.id}`,
      asked: {
        length: figure(wire.metres, "m"),
        area: figure(wire.mm2, "mm2"),
        amps: figure(wire.amps, "A"),
        supply: figure(supply, "V"),
      },
    }));
}
