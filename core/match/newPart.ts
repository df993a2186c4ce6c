import type { Circuit } from "../circuit/circuit";
import type { Motor, ResistorPack } from "../circuit/parts/index";
import { buildNetlist } from "../solve/buildNetlist";
import { healthyPoints } from "../solve/healthyPoint";
import type { Netlist } from "../solve/netlist/netlist";
import type { OperatingPoint } from "../solve/operatingPoint";
import type { PartDescription } from "./partDescription";

/** One speed with the new part, compared with the old part. */
export interface SpeedWithPart {
  readonly setting: string;
  /** Airflow relative to before: rpm over rpm. */
  readonly airflow: number;
  readonly amps: number;
  readonly wasAmps: number;
}

/** The circuit solved with the new part. */
export interface PartInCircuit {
  readonly speeds: readonly SpeedWithPart[];
  /** Fuses that carry a motor's current, with their largest current while the engine runs. */
  readonly fuses: readonly { readonly id: string; readonly ratedAmps: number; readonly amps: number }[];
  /** Watts of each coil of a pack at its worst speed, new and old. */
  readonly coils: readonly { readonly id: string; readonly watts: number; readonly wasWatts: number }[];
}

/** The circuit with the new part's figures in place of the old one's; null if the new part states none that matter. */
export function circuitWith(circuit: Circuit, part: string, fresh: PartDescription): Circuit | null {
  const old = circuit.parts.find(({ id }) => id === part);
  const made =
    old?.kind === "motor" && fresh.plate
      ? motorWith(old, fresh.plate)
      : old?.kind === "resistor" && fresh.elements
        ? packWith(old, fresh.elements)
        : null;
  return made ? { ...circuit, parts: circuit.parts.map((own) => (own.id === part ? made : own)) } : null;
}

/** A motor with the values of its plate: nothing of it is assumed any longer. */
function motorWith(old: Motor, plate: NonNullable<PartDescription["plate"]>): Motor {
  const made: Motor = { ...old, ...plate };
  delete made.assumed;
  return made;
}

/** A pack whose coils have the new ohms; null if the new one has other coils. */
function packWith(
  old: ResistorPack,
  elements: NonNullable<PartDescription["elements"]>,
): ResistorPack | null {
  const coils = old.elements.filter((element) => "ohms" in element && !("thermalLink" in element));
  if (coils.length !== elements.length) return null;
  const found = old.elements.map((element) => {
    if (!coils.includes(element)) return element;
    const own = elements.find(
      ({ from, to }) =>
        (from === element.from && to === element.to) || (from === element.to && to === element.from),
    );
    return own ? { ...element, ohms: own.ohms } : null;
  });
  return found.includes(null) ? null : { ...old, elements: found as ResistorPack["elements"] };
}

/** Solves every speed with the old and the new part, engine running, and compares them. */
export function partInCircuit(circuit: Circuit, part: string, fresh: PartDescription): PartInCircuit | null {
  const changed = circuitWith(circuit, part, fresh);
  if (!changed) return null;
  const [before, after] = [buildNetlist(circuit), buildNetlist(changed)];
  if (!before.ok || !after.ok) return null;
  const fresher = healthyPoints(after.value, { engine: true });
  const points = healthyPoints(before.value, { engine: true }).map(({ setting, point }, index) => ({
    setting,
    was: point,
    now: fresher[index]?.point ?? point,
  }));
  const owner = motorOf(before.value, part, points);
  const coils = circuit.parts.flatMap((own) =>
    own.id === part && own.kind === "resistor" ? own.elements.map(({ id }) => `${part}.${id}`) : [],
  );
  const most = (of: (point: OperatingPoint) => number, side: "was" | "now"): number =>
    Math.max(...points.map((point) => Math.abs(of(point[side]))));
  return {
    speeds: points.flatMap(({ setting, was, now }) => {
      const [old, turning] = [was.rpm[owner] ?? 0, now.rpm[owner] ?? 0];
      if (old < 1) return [];
      return [{ setting, airflow: turning / old, amps: now.amps[owner] ?? 0, wasAmps: was.amps[owner] ?? 0 }];
    }),
    fuses: circuit.parts.flatMap((own) => {
      if (own.kind !== "fuse") return [];
      const amps = most((point) => point.amps[own.id] ?? 0, "now");
      return amps > 1 ? [{ id: own.id, ratedAmps: own.amps, amps }] : [];
    }),
    coils: coils.map((id) => ({
      id,
      watts: most((point) => point.watts[id] ?? 0, "now"),
      wasWatts: most((point) => point.watts[id] ?? 0, "was"),
    })),
  };
}

interface BeforeAfter {
  readonly was: OperatingPoint;
  readonly now: OperatingPoint;
}

/** The motor a part drives: itself if it is one, otherwise the one whose speed it changes most. */
function motorOf({ motors }: Netlist, part: string, points: readonly BeforeAfter[]): string {
  const ids = motors.map((motor) => motor.part.id);
  if (ids.includes(part)) return part;
  const change = ids.map((id) =>
    points.reduce((sum, { was, now }) => sum + Math.abs((now.rpm[id] ?? 0) - (was.rpm[id] ?? 0)), 0),
  );
  return ids[change.indexOf(Math.max(...change))] ?? "";
}

/** The largest current of each wire in any setting, engine running. */
export function mostAmps(circuit: Circuit): (wire: string) => number {
  const netlist = buildNetlist(circuit);
  if (!netlist.ok) return () => 0;
  const points = healthyPoints(netlist.value, { engine: true });
  return (wire) => Math.max(0, ...points.map(({ point }) => Math.abs(point.amps[wire] ?? 0)));
}
