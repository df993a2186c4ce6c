import type { Chance } from "@core/chance/chance";
import { catalogue } from "@core/fault/catalogue";
import { faultId } from "@core/fault/faultId";
import { type FaultSource, faultSource, sampleFault } from "@core/practice/sampledFault";
import { SimulatedVehicle } from "@core/practice/simulatedVehicle";
import type { World } from "@core/practice/world";
import type { Netlist } from "@core/solve/netlist/netlist";
import type { CandidateCache } from "@core/wiring/compiledCandidate";
import { complaintByPlace, followWiring } from "@core/wiring/followWiring";
import { isPlug, type RepairPlace } from "@core/wiring/place";
import { PlaceVehicle } from "@core/wiring/placeVehicle";
import { seenOf, vehiclePlaces } from "@core/wiring/vehiclePlaces";

/** One vehicle's job without a diagram. */
export interface PlayedWithout {
  readonly circuit: string;
  readonly truth: string;
  readonly kind: string;
  readonly right: boolean;
  readonly state: string;
  readonly p: number;
  readonly replace: string;
  readonly looks: number;
  readonly minutes: number;
  readonly milliseconds: number;
  readonly wiring: string;
  readonly log: readonly string[];
}

const sources = new WeakMap<Netlist, FaultSource>();

function sourceOf(netlist: Netlist): FaultSource {
  const known = sources.get(netlist) ?? faultSource(netlist, catalogue(netlist));
  sources.set(netlist, known);
  return known;
}

/**
 * Whether a verdict by place is right: every place it names needs work, and every place that needs work is named, be it
 * as what to check before the new part goes in.
 */
function isRight(
  truth: ReadonlySet<string>,
  replace: readonly string[],
  alsoCheck: readonly string[],
): boolean {
  const named = new Set([...replace, ...alsoCheck]);
  return (
    replace.length > 0 &&
    replace.every((place) => truth.has(place)) &&
    [...truth].every((place) => named.has(place))
  );
}

/**
 * Samples one vehicle and plays its job without its diagram.
 * @param netlist of a circuit whose settings are numbers
 */
export function playWithout(
  netlist: Netlist,
  cache: CandidateCache,
  chance: Chance,
  world: World,
): PlayedWithout {
  const places = vehiclePlaces(netlist);
  for (let attempt = 0; ; attempt++) {
    if (attempt > 200) throw new Error(`${netlist.circuit.id}: nobody complains`);
    const { fault, behaviour, kind } = sampleFault(netlist, sourceOf(netlist), "prior", world, chance);
    const vehicle = new SimulatedVehicle(netlist, fault, world, chance, null, behaviour);
    const complaint = complaintByPlace(vehicle.complaint());
    if (complaint.length === 0) continue;
    const began = performance.now();
    const { diagnosis, readings, looks, minutes } = followWiring(
      seenOf(netlist.circuit),
      new PlaceVehicle(places, vehicle, chance),
      complaint,
      cache,
    );
    const { verdict, circuits } = diagnosis;
    // What heat or water has marked is work in any case, so a verdict that renews it as well is as right.
    const isMarked = (place: RepairPlace): boolean =>
      isPlug(place) && ["melted", "wet"].includes(vehicle.eyes(places.plugs.get(place)?.connector ?? ""));
    const truth = new Set<string>(fault.parts.map((part) => places.repairPlace.get(part) ?? "duct"));
    return {
      circuit: netlist.circuit.id,
      truth: `${faultId(fault.names)} (${[...truth].join("+")})`,
      kind,
      right: isRight(
        truth,
        verdict.replace.filter((place) => truth.has(place) || !isMarked(place)),
        verdict.alsoCheck,
      ),
      state: verdict.state,
      p: verdict.p,
      replace: verdict.replace.join("+"),
      looks,
      minutes,
      milliseconds: (performance.now() - began) / (looks + 1),
      wiring: circuits[0]?.id ?? "",
      log: readings.filter(({ heard }) => !heard).map((reading) => JSON.stringify(reading)),
    };
  }
}
