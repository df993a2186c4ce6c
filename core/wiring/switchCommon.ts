import type { PlaceReading } from "./placeReading";
import { labelOf } from "./placeTest";
import type { BelievedCandidate } from "./wiringBelief";

/** The results read at one pin of the switch's plug, in order. */
const readOf = (readings: readonly PlaceReading[], label: string): string =>
  readings
    .flatMap((reading) => {
      if (!("at" in reading) || reading.at !== "switch-plug") return [];
      if (reading.test === "light" && "seen" in reading) return [reading.seen[label] ?? ""];
      return reading.test === "volts" && "volts" in reading ? [String(reading.volts[label] ?? "")] : [];
    })
    .join(" ");

/**
 * The pin of the switch's plug that most likely is its common, to which it joins one speed after another; null if
 * another pin has shown the same, because then either may be it.
 * @param likeliest the likeliest wiring
 */
export function switchCommon(
  likeliest: BelievedCandidate | undefined,
  readings: readonly PlaceReading[],
): string | null {
  const pin = likeliest?.candidate.plugs.get("switch-plug")?.pins.find(({ role }) => role === "common");
  const label = likeliest && pin ? labelOf(likeliest.meanings(), "switch-plug", pin.point) : null;
  if (label === null) return null;
  const own = readOf(readings, label);
  const others = [...(likeliest?.meanings().get("switch-plug")?.keys() ?? [])].filter(
    (other) => other !== label,
  );
  return others.some((other) => readOf(readings, other) === own) ? null : label;
}
