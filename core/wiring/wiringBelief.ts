import { notListed, type Repair } from "../fault/repair";
import type { CandidateCache } from "./compiledCandidate";
import type { PlaceReading } from "./placeReading";
import { placesOf } from "./placeRepair";
import { labelsMet } from "./placeTest";
import { plugRenewal } from "./plugRenewal";
import type { SeenCar } from "./seenCar";
import { type WeighedCandidate, weighCandidate } from "./weighedCandidate";
import { wiringPlans } from "./wiringPlan";

/** A candidate with its share of the belief. */
export interface BelievedCandidate extends WeighedCandidate {
  readonly p: number;
  /** Belief by variant, summed over vehicles and readings of the labels, given this candidate; it sums to 1 with `unknown`. */
  readonly variants: Float64Array;
  readonly unknown: number;
}

/** Belief over wirings and faults together. */
export interface WiringBelief {
  /** Likeliest first; their shares sum to 1. */
  readonly candidates: readonly BelievedCandidate[];
  /** Belief of each repair, by its places, over all wirings; that of a cause no candidate lists among them. */
  readonly repairs: ReadonlyMap<Repair, number>;
}

/** The highest speed that readings name; 0 if they name none. */
const highestSetting = (readings: readonly PlaceReading[]): number =>
  Math.max(0, ...readings.map(({ setting }) => Number(setting ?? 0)));

/** Whether a pin was read where the command can be. */
function isCommandRead(readings: readonly PlaceReading[]): boolean {
  const met = labelsMet(readings);
  return met.has("module-plug") || met.has("panel-plug");
}

function believed(own: WeighedCandidate, p: number): BelievedCandidate {
  const count = own.compiled.variants.length;
  const samples = own.compiled.samples.length;
  const variants = new Float64Array(count);
  for (let variant = 0, cell = 0; variant < count; variant++)
    for (let sample = 0; sample < samples; sample++, cell++)
      variants[variant] = (variants[variant] as number) + (own.weights[cell] as number);
  return { ...own, p, variants, unknown: own.weights[count * samples] as number };
}

/**
 * P(wiring, fault | readings), by Bayes over every way the vehicle may be wired and every fault of each.
 * @param onProgress called with the share of the candidates weighed; returning false stops
 */
export function believeWiring(
  seen: SeenCar,
  readings: readonly PlaceReading[],
  cache: CandidateCache,
  onProgress: (share: number) => boolean = () => true,
): WiringBelief {
  const renewal = plugRenewal(readings);
  const renewed = (repair: Repair): Repair =>
    repair === notListed ? repair : cache.repairOf(renewal(placesOf(repair)));
  const plans = wiringPlans(seen, highestSetting(readings), isCommandRead(readings));
  const weighed: WeighedCandidate[] = [];
  for (const [index, plan] of plans.entries()) {
    const own = weighCandidate(cache.compile(plan), readings);
    weighed.push({ ...own, repairs: own.repairs.map(renewed) });
    if (!onProgress((index + 1) / plans.length)) break;
  }
  const logs = weighed.map(({ candidate, evidence }) => Math.log(candidate.prior) + evidence);
  const most = Math.max(...logs);
  const shares = logs.map((log) => Math.exp(log - most));
  const whole = shares.reduce((sum, own) => sum + own, 0);
  const candidates = weighed
    .map((own, index) => believed(own, (shares[index] ?? 0) / whole))
    .sort((a, b) => b.p - a.p);
  const repairs = new Map<Repair, number>();
  const add = (repair: Repair, p: number): void => {
    repairs.set(repair, (repairs.get(repair) ?? 0) + p);
  };
  for (const { p, variants, unknown, repairs: own } of candidates) {
    add(notListed, p * unknown);
    for (const [variant, share] of variants.entries()) add(own[variant] ?? notListed, p * share);
  }
  return { candidates, repairs };
}
