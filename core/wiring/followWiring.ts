import type { Reading } from "../predict/reading";
import type { CandidateCache } from "./compiledCandidate";
import { diagnoseWiring, type WiringDiagnosis, type WiringOptions } from "./diagnoseWiring";
import { type PlaceReading, placeReadingSchema } from "./placeReading";
import { placeTestMinutes } from "./placeTest";
import type { PlaceVehicle } from "./placeVehicle";
import type { SeenCar } from "./seenCar";

/** A job on a vehicle without a diagram, played to its end. */
export interface FollowedWiring {
  readonly diagnosis: WiringDiagnosis;
  readonly readings: readonly PlaceReading[];
  readonly looks: number;
  readonly minutes: number;
}

/** The most tests a job takes before it is given up. */
const mostTests = 20;

/** The complaint of a vehicle as it is told without a diagram; what tells of a second switch is left out. */
export const complaintByPlace = (complaint: readonly Reading[]): PlaceReading[] =>
  complaint.flatMap((reading) => {
    if (reading.selectors) return [];
    const told = Object.entries(reading).filter(([key]) => key !== "at");
    const parsed = placeReadingSchema.safeParse(Object.fromEntries(told));
    return parsed.success ? [parsed.data] : [];
  });

/** Takes the first test proposed again and again, until the verdict no longer asks for one. */
export function followWiring(
  seen: SeenCar,
  vehicle: PlaceVehicle,
  complaint: readonly PlaceReading[],
  cache: CandidateCache,
  options: WiringOptions = {},
): FollowedWiring {
  const readings = [...complaint];
  let looks = 0;
  let minutes = 0;
  for (;;) {
    const diagnosis = diagnoseWiring(seen, readings, cache, options);
    const [next] = diagnosis.next;
    if (diagnosis.verdict.state !== "open" || !next || looks >= mostTests)
      return { diagnosis, readings, looks, minutes };
    const { test } = next;
    readings.push(vehicle.answer(test));
    looks += 1;
    minutes += placeTestMinutes(test, "at" in test && test.at ? vehicle.labelsAt(test.at).length : 0);
  }
}
