import type { Repair } from "../fault/repair";
import { type Place, type PlugPlace, plugPlaces, type RepairPlace } from "./place";
import type { PlaceReading } from "./placeReading";

/** What each plug is mated with. */
const matedWith: Readonly<Record<PlugPlace, RepairPlace>> = {
  "motor-plug": "motor",
  "motor-plug-2": "motor-2",
  "pack-plug": "pack",
  "module-plug": "module",
  "switch-plug": "switch",
  "panel-plug": "panel",
};

/** What each place looked like when last inspected. */
const lastSeen = (readings: readonly PlaceReading[]): ReadonlyMap<Place, string> =>
  new Map(
    readings.flatMap((reading) =>
      reading.test === "look" && "seen" in reading ? [[reading.at, reading.seen] as const] : [],
    ),
  );

/**
 * What a repair comes to once the plug of its part was seen melted or wet: that plug is renewed with it, whether or not
 * its contact still conducts (common practice, no source).
 * @returns the places of the whole repair, starting with those given
 */
export function plugRenewal(
  readings: readonly PlaceReading[],
): (places: readonly RepairPlace[]) => readonly RepairPlace[] {
  const seen = lastSeen(readings);
  const damaged = plugPlaces.filter((plug) => ["melted", "wet"].includes(seen.get(plug) ?? ""));
  return (places) => [
    ...places,
    ...damaged.filter((plug) => places.includes(matedWith[plug]) && !places.includes(plug)),
  ];
}

/** A plug with less belief than this is not worth an extra inspection (judgement). */
const worthSeeing = 0.008;

/**
 * The plug to inspect before a verdict: on a part of the leading repair, not looked at yet, and likely enough to have
 * failed with it. Null if none is due.
 */
export function plugToInspect(
  leading: Repair,
  repairs: ReadonlyMap<Repair, number>,
  readings: readonly PlaceReading[],
): PlugPlace | null {
  const seen = lastSeen(readings);
  const isLikely = (plug: PlugPlace): boolean => {
    for (const [{ parts }, p] of repairs)
      if (
        p >= worthSeeing &&
        parts.length === leading.parts.length + 1 &&
        [...leading.parts, plug].every((part) => parts.includes(part))
      )
        return true;
    return false;
  };
  return (
    plugPlaces.find(
      (plug) =>
        leading.parts.includes(matedWith[plug]) &&
        !leading.parts.includes(plug) &&
        !seen.has(plug) &&
        isLikely(plug),
    ) ?? null
  );
}
