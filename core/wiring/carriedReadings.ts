import type { Circuit } from "../circuit/circuit";
import { declinedParts } from "../circuit/declined";
import type { Reading } from "../predict/reading";
import { CompiledCircuit } from "../predict/tables/compiledCircuit";
import { type Parsed, refused } from "../problem/problem";
import { buildNetlist } from "../solve/buildNetlist";
import { circuitFamily } from "../solve/checks/circuitFamily";
import type { Candidate } from "./candidate";
import { meaningOf } from "./meaning";
import { piecesOf } from "./piece";
import type { PlaceReading } from "./placeReading";
import { concreteReadings } from "./placeTest";
import { numberedSettings, vehiclePlaces } from "./vehiclePlaces";
import { type WeighedCandidate, weighCandidate } from "./weighedCandidate";

/** Readings by place in the terms of one circuit. */
export interface CarriedReadings {
  /** Each with the number of the reading by place it comes from, counted from 0. */
  readonly readings: readonly { readonly from: number; readonly reading: Reading }[];
  /** Readings by place that say nothing of this circuit, counted from 0. */
  readonly left: readonly number[];
}

/**
 * Readings by place as readings of one candidate's circuit, by what each label most likely stands for.
 * @param said puts a reading into the words of the circuit it is for
 */
export function carriedReadings(
  { candidate, compiled, meanings }: WeighedCandidate,
  readings: readonly PlaceReading[],
  said: (reading: Reading) => Reading,
): CarriedReadings {
  const labels = meanings();
  const carried = readings.map((reading) =>
    piecesOf(candidate, compiled.netlist, reading)
      .flatMap((piece) => concreteReadings(piece, (of) => meaningOf(labels, of)))
      .map(said),
  );
  return {
    readings: carried.flatMap((all, from) => all.map((reading) => ({ from, reading }))),
    left: carried.flatMap((all, from) => (all.length === 0 ? [from] : [])),
  };
}

/**
 * Readings by place as readings of a circuit whose diagram was found after all. Its settings are numbered from the
 * weakest for that, and get their own names back.
 * @returns refused if the circuit cannot be solved
 */
export function carriedTo(circuit: Circuit, readings: readonly PlaceReading[]): Parsed<CarriedReadings> {
  const netlist = buildNetlist(numberedSettings(circuit), { lumpWires: true });
  if (!netlist.ok) return refused(netlist.problems);
  const { control, side, relays } = circuitFamily(netlist.value);
  const isBus = declinedParts(circuit).some(({ reason }) => reason === "data-bus");
  const drives = { chopping: "pwm", linear: "linear", resistor: "resistor", switch: "resistor" } as const;
  const candidate: Candidate = {
    ...vehiclePlaces(netlist.value),
    id: circuit.id,
    title: circuit.title,
    prior: 1,
    facts: { switchedSide: side, relay: relays > 0, drive: isBus ? "bus" : drives[control] },
  };
  const compiled = new CompiledCircuit(netlist.value, { samples: 6 });
  const own = weighCandidate({ candidate, compiled, repairs: [] }, readings);
  const named = (reading: Reading): Reading =>
    reading.setting === undefined
      ? reading
      : { ...reading, setting: circuit.settings[Number(reading.setting)] ?? reading.setting };
  return { ok: true, value: carriedReadings(own, readings, named) };
}
