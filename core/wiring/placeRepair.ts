import { notListed, type Repair } from "../fault/repair";
import { minutesMinor, type RepairCost, repairDefaults, type StoppingCosts } from "../money/stoppingCosts";
import type { RepairPlace } from "./place";

/** The kind of repair that sets a place's price. */
const kindOf: Readonly<Record<RepairPlace, string>> = {
  "motor-plug": "connector",
  "motor-plug-2": "connector",
  "pack-plug": "connector",
  "module-plug": "connector",
  "switch-plug": "connector",
  "panel-plug": "connector",
  motor: "motor",
  "motor-2": "motor",
  pack: "resistor",
  module: "module",
  switch: "selector",
  panel: "head",
  relay: "relay",
  fuse: "fuse",
  feed: "wire",
  ground: "wire",
  command: "wire",
  battery: "battery",
  duct: "car",
};
const isRepairPlace = (part: string): part is RepairPlace => Object.hasOwn(kindOf, part);
/** The places of a repair, the cause first. */
export const placesOf = ({ parts }: Repair): RepairPlace[] => parts.filter(isRepairPlace);

const noRepair: RepairCost = { priceMinor: 0, minutes: 60 };
const fitMinor = (repair: Repair, costs: StoppingCosts): number =>
  placesOf(repair).reduce((sum, place) => {
    const { priceMinor, minutes } =
      costs.repairs?.[kindOf[place]] ?? repairDefaults[kindOf[place]] ?? noRepair;
    return sum + priceMinor + minutesMinor(minutes, costs);
  }, 0);

/** Expected cost of the repair that is best under a belief. */
export function bestMinor(repairs: ReadonlyMap<Repair, number>, costs: StoppingCosts): number {
  const whole = [...repairs.values()].reduce((sum, p) => sum + p, 0);
  let best = Number.POSITIVE_INFINITY;
  for (const [repair, p] of repairs) {
    if (repair === notListed) continue;
    best = Math.min(best, fitMinor(repair, costs) + (1 - p / whole) * costs.comebackMinor);
  }
  return best;
}

/** Modes of a wire that blow the fuse ahead of it. */
const shorts = new Set(["to-ground", "chafed"]);

/**
 * What to check before the new part goes in. A burnt-out pack, plug or fuse had a cause: usually the motor, and of a
 * blown fuse the wire behind it as well; a short has usually blown the fuse ahead of it.
 * @param modes what is wrong, in the likeliest fault of the repair
 */
export function placesToCheck(repair: Repair, modes: readonly string[]): RepairPlace[] {
  const places = placesOf(repair);
  const heated = places.some((place) => place === "pack" || place === "fuse" || place.endsWith("-plug"));
  const shorted = modes.some((mode) => shorts.has(mode));
  const causes: readonly RepairPlace[] = [
    ...(heated ? (["motor"] as const) : []),
    ...(places.includes("fuse") ? (["feed"] as const) : []),
    ...(shorted ? (["fuse"] as const) : []),
  ];
  return causes.filter((place) => !places.includes(place));
}
