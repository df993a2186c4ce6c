import type { Circuit } from "@core/circuit/circuit";
import { type ClampedCurrentDraw, type MotorCurrentDraw, motorCurrentDraw } from "@core/predict/currentDraw";
import type { Reading } from "@core/predict/reading";
import { buildNetlist } from "@core/solve/buildNetlist";
import { type JointDrop, jointDrop } from "@core/solve/checks/jointDrop";
import type { Netlist } from "@core/solve/netlist/netlist";
import type { Setup } from "@core/solve/netlist/setup";
import { operatingPoint } from "@core/solve/operatingPoint";
import type { StoredReading } from "@db/repositories/readings.server";
import type { StoredRecording } from "@db/repositories/recordings.server";
import { clockText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";

/** A voltage drop entered on this job, with its limit. */
export interface DropLine {
  readonly id: string;
  readonly number: number;
  readonly red: string;
  readonly black: string;
  readonly setting: string;
  readonly drop: JointDrop;
}

/** A recording as the page lists it. */
export interface RecordingLine {
  readonly id: string;
  readonly record: StoredRecording["record"];
  readonly healthy: boolean;
  /** Taken before the new part was fitted, or after. */
  readonly when: "before" | "after";
  readonly time: string;
  readonly struck: boolean;
}

/** The motor part a healthy recording belongs to: the circuit's id, in any version, and the motor. */
export const motorPart = (circuit: Circuit, motor: string): string => `${circuit.id}|${motor}`;

export function wholeNetlist(circuit: Circuit): Netlist {
  const netlist = buildNetlist(circuit);
  if (!netlist.ok) throw new Error(`circuit ${circuit.id} cannot be solved`);
  return netlist.value;
}

const setupOf = ({ key, engine, setting, selectors, unplugged, bridged, lampFor }: Reading): Setup => ({
  key,
  engine,
  setting,
  selectors,
  unplugged,
  bridged,
  lampFor,
});

const alike = (a: Setup, b: Setup): boolean => JSON.stringify(a) === JSON.stringify(b);

/** A wire with the motor's healthy current counts as the motor's own. */
const sameCurrent = 0.01;

/** A motor's current among the active readings: clamped on the motor, or on a wire that carries the same. */
export function clampedCurrentDraws(
  netlist: Netlist,
  motor: string,
  readings: readonly Reading[],
): ClampedCurrentDraw[] {
  return readings.flatMap((reading): ClampedCurrentDraw[] => {
    if (reading.test !== "amps") return [];
    const setup = setupOf(reading);
    if (reading.around !== motor) {
      const { amps } = operatingPoint(netlist, setup);
      const [own, wire] = [Math.abs(amps[motor] ?? 0), Math.abs(amps[reading.around] ?? 0)];
      if (own < 0.5 || Math.abs(wire / own - 1) > sameCurrent) return [];
    }
    const across = readings.findLast(
      (other) =>
        other.test === "volts" &&
        isAcross(netlist, motor, other.red, other.black) !== 0 &&
        alike(setupOf(other), setup),
    );
    const volts =
      across?.test === "volts"
        ? across.volts * isAcross(netlist, motor, across.red, across.black)
        : undefined;
    return [{ setup, amps: Math.abs(reading.amps), volts }];
  });
}

/** 1 if the leads are across a motor's own terminals or its plug, −1 if reversed, 0 elsewhere. */
function isAcross(netlist: Netlist, motor: string, red: string, black: string): number {
  const on = (name: string, end: "+" | "-"): boolean =>
    name === `${motor}.${end}` || netlist.points.pinOnTerminal.get(`${motor}.${end}`) === name;
  if (on(red, "+") && on(black, "-")) return 1;
  return on(red, "-") && on(black, "+") ? -1 : 0;
}

/** Volts above which it is a feed or a load, not a joint's drop. */
const mostDrop = 4;

function dropLines(netlist: Netlist, stored: readonly StoredReading[]): DropLine[] {
  return stored.flatMap(({ id, number, reading, struckAt }): DropLine[] => {
    if (struckAt || reading.test !== "volts" || Math.abs(reading.volts) > mostDrop) return [];
    const drop = jointDrop(netlist, setupOf(reading), reading.red, reading.black, reading.volts);
    if (!drop.ok) return [];
    const { red, black, setting = netlist.circuit.settings[0] ?? "" } = reading;
    return [{ id, number, red, black, setting, drop: drop.value }];
  });
}

/** All computed data of the motor page. */
export function motorView(
  circuit: Circuit,
  motor: string,
  stored: readonly StoredReading[],
  engine: boolean,
): { readonly draw: MotorCurrentDraw; readonly drops: readonly DropLine[] } {
  const netlist = wholeNetlist(circuit);
  const standing = stored.flatMap(({ reading, struckAt }) => (struckAt ? [] : [reading]));
  return {
    draw: motorCurrentDraw(netlist, motor, clampedCurrentDraws(netlist, motor, standing), engine),
    drops: dropLines(netlist, stored),
  };
}

/** Recordings as the page lists them. */
export const recordingLines = (traces: readonly StoredRecording[], fittedAt: Date | null): RecordingLine[] =>
  traces.map(({ id, record, healthyOf, takenAt, struckAt }) => ({
    id,
    record,
    healthy: healthyOf !== null,
    when: fittedAt !== null && takenAt > fittedAt ? "after" : "before",
    time: clockText(takenAt, shopZone()),
    struck: struckAt !== null,
  }));
