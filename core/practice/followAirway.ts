import { type DiagnoseOptions, type Diagnosis, diagnose } from "../diagnose/diagnose";
import { openPlaces, testMinutes } from "../diagnose/tests/access";
import { visitsOf } from "../diagnose/tests/visit";
import type { Reading } from "../predict/reading";
import type { CompiledCircuit } from "../predict/tables/compiledCircuit";
import type { SimulatedVehicle } from "./simulatedVehicle";

/** How one job went. */
export interface Job {
  readonly diagnosis: Diagnosis;
  readonly readings: readonly Reading[];
  /** Tests after the complaint, and their minutes with access. */
  readonly looks: number;
  readonly minutes: number;
  /** Trips to a place of the vehicle. */
  readonly visits: number;
}

const mostLooks = 16;

/** A technician who takes every test Airway suggests, until its verdict. */
export function followAirway(
  compiled: CompiledCircuit,
  vehicle: SimulatedVehicle,
  complaint: readonly Reading[],
  options: DiagnoseOptions,
): Job {
  const readings = [...complaint];
  let minutes = 0;
  for (let tests = 0; ; tests++) {
    const result = diagnose(compiled, readings, options);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    const diagnosis = result.value;
    const [next] = diagnosis.next;
    const taken = readings.slice(complaint.length);
    if (diagnosis.verdict.state !== "open" || !next || tests >= mostLooks)
      return { diagnosis, readings, looks: tests, minutes, visits: visitsOf(compiled, taken) };
    minutes += testMinutes(compiled, next.test, openPlaces(compiled, readings));
    readings.push(vehicle.take(next.test));
  }
}
