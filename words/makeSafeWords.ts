import type { Circuit } from "@core/circuit/circuit";
import type { MakeSafe } from "@core/diagnose/tests/makeSafe";
import { listed } from "@core/units/wording";
import { repairName } from "./partName";
import { placeOf } from "./seenName";

/** A part by its name and where it is: `30 A fuse F7 (engine-bay box, slot 7)`. */
function nameAndPlace(circuit: Circuit, id: string): string {
  const place = placeOf(circuit, id);
  return `${repairName(circuit, [id])}${place ? ` (${place})` : ""}`;
}

/** How to silence a blower that will not stop, as sentences. */
export function makeSafeText(circuit: Circuit, { fuses, plugs, battery }: MakeSafe): string {
  const [plug] = plugs;
  const ways = [
    ...(fuses.length > 0 ? [`Pull ${listed(fuses.map((id) => nameAndPlace(circuit, id)))}.`] : []),
    ...(plug
      ? [`${fuses.length > 0 ? "If it still runs, pull" : "Pull"} the ${nameAndPlace(circuit, plug)}.`]
      : []),
    `As a last resort disconnect the negative lead of the ${nameAndPlace(circuit, battery)}.`,
  ];
  return ways.join(" ");
}
