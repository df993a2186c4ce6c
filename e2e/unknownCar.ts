// A vehicle without a diagram for the tests' technician: it answers tests by place, and nothing on the page knows its
// circuit or its fault.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { chanceFrom } from "../core/chance/chance";
import { parseCircuit } from "../core/circuit/parseCircuit";
import { observationOf } from "../core/predict/observations/index";
import { type Reading, readingSchema, type Test } from "../core/predict/reading";
import { buildNetlist } from "../core/solve/buildNetlist";
import type { PlaceReading } from "../core/wiring/placeReading";
import type { PlaceTest } from "../core/wiring/placeTest";
import { PlaceVehicle } from "../core/wiring/placeVehicle";
import type { SeenCar } from "../core/wiring/seenCar";
import { numberedSettings, seenOf, vehiclePlaces } from "../core/wiring/vehiclePlaces";
import { brokenVehicleOf } from "./brokenVehicle";

export interface UnknownCar {
  readonly seen: SeenCar;
  readonly airflow: (setting: string) => "none" | "weak" | "normal" | "strong";
  readonly answer: (test: PlaceTest) => PlaceReading;
  readonly labelsAt: (place: string) => readonly string[];
}

/** A vehicle with a shipped circuit that nobody has the diagram of. */
export function unknownCar(circuitId: string, faultId: string): UnknownCar {
  const file = readFileSync(join(process.cwd(), "demo", "circuits", `${circuitId}.json`), "utf8");
  const parsed = parseCircuit(JSON.parse(file));
  if (!parsed.ok) throw new Error(`${circuitId} does not parse`);
  const circuit = numberedSettings(parsed.value);
  const netlist = buildNetlist(circuit);
  if (!netlist.ok) throw new Error(`${circuitId} cannot be solved`);
  const broken = brokenVehicleOf(JSON.stringify(circuit), faultId);
  const take = (test: Test): Reading => {
    const { gives } = observationOf(test.test);
    const key = gives === "number" ? test.test : "seen";
    return readingSchema.parse({ ...test, [key]: broken.answer(test) });
  };
  const vehicle = new PlaceVehicle(
    vehiclePlaces(netlist.value),
    { netlist: netlist.value, take },
    chanceFrom(3),
  );
  return {
    seen: seenOf(circuit),
    airflow: broken.airflow,
    answer: (test) => vehicle.answer(test),
    labelsAt: (place) => vehicle.labelsAt(place),
  };
}
