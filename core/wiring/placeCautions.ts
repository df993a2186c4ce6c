import { type Caution, cautions } from "../diagnose/tests/caution";
import type { Place } from "./place";
import { blowsWhenOff, type PlaceReading } from "./placeReading";
import type { PlaceTest } from "./placeTest";
import { placesOfTest } from "./placeTests";

/** Places outside the cabin, away from airbag plugs. */
const outside: readonly Place[] = ["fuses", "relay", "grounds"];
const nearWheel: readonly Place[] = ["motor", "motor-2", "motor-plug", "motor-plug-2"];
const hot: readonly Place[] = ["pack", "pack-plug", "module", "module-plug"];

/**
 * The cautions of a test by place, shown where the test is. The dangers are those of the trade (common practice, no
 * source); the maker's procedure and local rules come first.
 * @param readings so far: they may say that the blower does not stop
 */
export function placeCautions(test: PlaceTest, readings: readonly PlaceReading[]): Caution[] {
  const places = placesOfTest(test);
  const isAt = (those: readonly Place[]): boolean => places.some((place) => those.includes(place));
  const runsOn = readings.some(blowsWhenOff);
  const isFed = test.test === "lampload" || (test.test === "airflow" && test.leads === true);
  const applies: Readonly<Record<Caution, boolean>> = {
    "runs-on": runsOn && isAt(nearWheel),
    wheel: !runsOn && isAt(nearWheel),
    airbag: places.some((place) => !outside.includes(place)),
    "hot-pack": isAt(hot),
    "fused-lead": isFed,
    "load-lamp": test.test === "lampload",
    swap: test.test === "swap",
  };
  return cautions.filter((caution) => applies[caution]);
}
