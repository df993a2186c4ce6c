import { notListed, type Repair } from "../fault/repair";
import { defaultStoppingCosts, minutesMinor, type StoppingCosts } from "../money/stoppingCosts";
import { allTools, type Tool } from "../predict/observations/tool";
import type { WiringFacts } from "./candidate";
import type { CandidateCache } from "./compiledCandidate";
import type { Place, PlugPlace, RepairPlace } from "./place";
import { type PlaceForecast, PlaceForecasts } from "./placeForecast";
import { proofUnder } from "./placeProof";
import { absentPlace, type PlaceReading } from "./placeReading";
import { bestMinor, placesOf, placesToCheck } from "./placeRepair";
import { type GroupedSuspect, type PlaceSuspect, partsOf, suspectsOf } from "./placeSuspect";
import { keyOfPlaceReading, labelsMet, type PlaceTest, placeTestKey } from "./placeTest";
import { isWithin, placesOfTest, placeTests } from "./placeTests";
import { plugToInspect } from "./plugRenewal";
import type { SeenCar } from "./seenCar";
import { switchCommon } from "./switchCommon";
import { type BelievedCandidate, believeWiring, type WiringBelief } from "./wiringBelief";
import {
  type BelievedWiring,
  differingFact,
  factShares,
  factsOf,
  type KnownFact,
  leadingUnder,
  namedWirings,
  under,
} from "./wiringFact";

/** A reason for the state of a verdict on a vehicle without a diagram. */
export type WiringReason =
  | { readonly kind: "complaint-only" }
  /** The repair is the same under every wiring that is still likely. */
  | { readonly kind: "holds-under-all"; readonly wirings: number }
  /** Another repair is right under a wiring that is still likely. */
  | { readonly kind: "wiring-open"; readonly fact: keyof WiringFacts }
  | { readonly kind: "proof-missing" }
  | { readonly kind: "proved" }
  /** What is known of the wiring, from the readings. */
  | (KnownFact & { readonly kind: "fact" })
  /** The control may use a data bus: it is left to the maker's procedure. */
  | { readonly kind: "may-be-bus"; readonly p: number };

export interface WiringVerdict {
  readonly state: "open" | "settled" | "best-guess";
  readonly replace: readonly RepairPlace[];
  readonly p: number;
  /** The cause, if the repair is of a cause and what it damaged. */
  readonly killedBy: RepairPlace | null;
  readonly fitNowMinor: number;
  readonly testMoreMinor: number | null;
  readonly because: readonly WiringReason[];
  readonly alsoCheck: readonly RepairPlace[];
}

/** The diagnosis of a vehicle without a diagram. */
export interface WiringDiagnosis {
  readonly suspects: readonly GroupedSuspect[];
  readonly parts: readonly { readonly part: string; readonly p: number }[];
  readonly verdict: WiringVerdict;
  readonly next: readonly PlaceForecast[];
  /** Readings that the leading repair does not explain, counted from 0. */
  readonly conflicts: readonly number[];
  /** What all of it is computed from. */
  readonly belief: WiringBelief;
  /** The wirings that carry 99 % of the belief, likeliest first. */
  readonly circuits: readonly BelievedWiring[];
}

export interface WiringOptions {
  readonly tools?: readonly Tool[];
  readonly costs?: StoppingCosts;
  /** Where nobody can get at on this vehicle: no test is proposed there. */
  readonly outOfReach?: readonly Place[];
  /** How many next tests to return; 8 by default. */
  readonly looks?: number;
}

const defaultLooks = 8;
/** A verdict is worth proving from this belief on, and a test worth taking from this many bits on (judgements). */
const worthProving = 0.8;
const leastBits = 0.02;
/**
 * A repair holds under a wiring from this belief on (judgement). Over all wirings together it has to reach the shop's
 * bar.
 */
const leastHeld = 0.9;
/** What knowing the wiring is worth, per bit, beside knowing the repair (judgement). */
const wiringWorth = 0.15;

/** Readings in which something was seen or measured on the vehicle. */
const isMeasured = ({ heard, test }: PlaceReading): boolean => !heard && test !== "history";

/** The leading repair, and what it stands on. */
interface Standing {
  readonly repair: Repair;
  readonly p: number;
  readonly measured: boolean;
  /** The wirings whose share is larger than what the shop's bar allows a verdict to be wrong. */
  readonly likely: readonly BelievedCandidate[];
  /** It holds under each of them. */
  readonly holds: boolean;
  /** A likely wiring under which another repair leads. */
  readonly otherwise: BelievedCandidate | null;
  readonly proved: boolean;
  /** A plug of its part to inspect before the verdict; null if none is due. */
  readonly plug: PlugPlace | null;
  /** The tests that its proof still needs. */
  readonly missing: readonly PlaceTest[];
  /** Readings it does not explain under a likely wiring, counted from 0. */
  readonly disputed: readonly number[];
}

/** Whether a wiring leaves a repair to the maker's procedure: a healthy control on a data bus must not be condemned. */
const isDeclined = ({ candidate }: BelievedCandidate, { parts }: Repair): boolean =>
  candidate.facts.drive === "bus" && (parts.includes("module") || parts.includes("panel"));

function standingOf(
  { candidates, repairs }: WiringBelief,
  readings: readonly PlaceReading[],
  tools: readonly Tool[],
  bar: number,
): Standing {
  const ranked = [...repairs].filter(([repair]) => repair !== notListed).sort((a, b) => b[1] - a[1]);
  const [repair = notListed, p = 0] = ranked[0] ?? [];
  const measured = readings.some(isMeasured);
  const likely = candidates.filter((own) => own.p > 1 - bar);
  const isWorthProving = p >= worthProving && repair !== notListed && measured;
  const proofs = isWorthProving ? likely.map((own) => proofUnder(own, repair, readings, tools)) : [];
  return {
    repair,
    p,
    measured,
    likely,
    holds:
      likely.length > 0 && likely.every((own) => under(own, repair) >= leastHeld && !isDeclined(own, repair)),
    otherwise: likely.find((own, place) => place > 0 && leadingUnder(own) !== repair) ?? null,
    proved: proofs.length > 0 && proofs.every(({ complete }) => complete),
    plug: p >= bar ? plugToInspect(repair, repairs, readings) : null,
    missing: proofs.flatMap((own) => own.missing),
    disputed: [...new Set(proofs.flatMap((own) => own.disputed))].sort((a, b) => a - b),
  };
}

function becauseOf(belief: WiringBelief, standing: Standing, bar: number): WiringReason[] {
  const { p, measured, likely, holds, otherwise, proved } = standing;
  const bus = factShares(belief, "drive").get("bus") ?? 0;
  const facts = factsOf(belief).map((own) => ({ kind: "fact" as const, ...own }));
  const isBus = bus >= 1 - bar ? [{ kind: "may-be-bus" as const, p: bus }] : [];
  if (!measured) return [{ kind: "complaint-only" }, ...facts, ...isBus];
  return [
    ...facts,
    ...(otherwise
      ? [{ kind: "wiring-open" as const, fact: differingFact(belief.candidates, otherwise) }]
      : []),
    ...(holds && p >= worthProving ? [{ kind: "holds-under-all" as const, wirings: likely.length }] : []),
    ...(p >= worthProving && !proved ? [{ kind: "proof-missing" as const }] : []),
    // What leads is only called proved once it is also sure enough.
    ...(p >= bar && proved ? [{ kind: "proved" as const }] : []),
    ...isBus,
  ];
}

/** Number of suspects that are compared with each other; the rest are too unlikely to matter. */
const groupedSuspects = 12;

/** Suspects with their groups. */
function grouped(
  suspects: readonly PlaceSuspect[],
  forecasts: PlaceForecasts,
  tests: readonly PlaceTest[],
): GroupedSuspect[] {
  const compared = suspects.slice(0, groupedSuspects).flatMap(({ variant }) => variant ?? []);
  const groups = forecasts.groups(compared, tests);
  return suspects.map((own, place) => {
    const at = own.variant === null ? -1 : compared.indexOf(own.variant);
    return { ...own, group: groups[at] ?? groupedSuspects + place + 1 };
  });
}

/** The tests worth taking, the best for its minutes first. */
function weighedTests(
  forecasts: PlaceForecasts,
  tests: readonly PlaceTest[],
  readings: readonly PlaceReading[],
): PlaceForecast[] {
  // What the customer tells of a speed is checked once, at one speed; the rest of the complaint is believed.
  const known = readings.some(isMeasured) ? readings : readings.filter(isMeasured);
  const taken = new Set(known.map(keyOfPlaceReading));
  return tests
    .filter((test) => !taken.has(placeTestKey(test)))
    .map((test) => forecasts.of(test))
    .filter(({ bits, wiringBits }) => bits + wiringWorth * wiringBits >= leastBits)
    .sort((a, b) => worth(b) - worth(a));
}

/** Expected cost of the test that pays most and the repair after it; null if no test is left. */
const testMore = (weighed: readonly PlaceForecast[], costs: StoppingCosts): number | null =>
  weighed.reduce<number | null>((least, { minutes, outcomes }) => {
    const after = outcomes.reduce((sum, outcome) => sum + outcome.p * bestMinor(outcome.repairs, costs), 0);
    const own = minutesMinor(minutes, costs) + after;
    return least === null || own < least ? own : least;
  }, null);

/** The tests that come before all others: those the proof needs, then the one that tells most of an open wiring. */
function firstTests(
  { p, holds, missing, plug }: Standing,
  weighed: readonly PlaceForecast[],
  forecasts: PlaceForecasts,
  readings: readonly PlaceReading[],
  bar: number,
): PlaceForecast[] {
  if (p < bar && weighed.length > 0) return [];
  const taken = new Set(readings.filter(isMeasured).map(keyOfPlaceReading));
  const proof = missing.filter((test) => !taken.has(placeTestKey(test))).slice(0, 2);
  const [wiring] = holds
    ? []
    : [...weighed].sort((a, b) => b.wiringBits / b.minutes - a.wiringBits / a.minutes);
  return [
    ...(plug ? [forecasts.of({ test: "look", at: plug })] : []),
    ...proof.map((test) => forecasts.of(test)),
    ...(wiring && wiring.wiringBits >= leastBits ? [wiring] : []),
  ];
}

/**
 * Diagnoses a vehicle whose diagram nobody has: which repair, under which wirings, and what to test next. A repair is
 * confirmed only if it holds, and is proved, under every likely wiring: each whose share of the belief is larger than
 * the chance of error that the shop's bar allows.
 */
export function diagnoseWiring(
  seen: SeenCar,
  readings: readonly PlaceReading[],
  cache: CandidateCache,
  options: WiringOptions = {},
): WiringDiagnosis {
  const costs = options.costs ?? defaultStoppingCosts;
  const { settledBar } = costs;
  const tools = options.tools ?? allTools;
  const belief = believeWiring(seen, readings, cache);
  const labels = labelsMet(readings);
  const forecasts = new PlaceForecasts(belief, labels);
  const outOfReach = new Set([...(options.outOfReach ?? []), ...readings.flatMap(absentPlace)]);
  const isPossible = (test: PlaceTest): boolean =>
    isWithin(test, tools) && placesOfTest(test).every((place) => !outOfReach.has(place));
  const common = switchCommon(belief.candidates[0], readings);
  const tests = placeTests(forecasts.candidates(), labels, common).filter(isPossible);
  const weighed = weighedTests(forecasts, tests, readings);
  const standing = standingOf(belief, readings, tools, settledBar);
  const { repair, p, measured, holds, proved } = standing;
  const replace = placesOf(repair);
  const suspects = suspectsOf(belief);
  const modes = suspects.find((own) => own.repair === repair)?.modes ?? [];
  const first = firstTests(standing, weighed, forecasts, readings, settledBar).filter(({ test }) =>
    isPossible(test),
  );
  const firstKeys = new Set(first.map(({ test }) => placeTestKey(test)));
  const fitNowMinor = bestMinor(belief.repairs, costs);
  const testMoreMinor = testMore(weighed, costs);
  const pays = testMoreMinor !== null && testMoreMinor < fitNowMinor;
  const plugDue = first.some(({ test }) => test.test === "look" && test.at === standing.plug);
  const isSettled = measured && p >= settledBar && holds && proved && !plugDue;
  return {
    suspects: grouped(suspects, forecasts, tests),
    parts: partsOf(belief),
    verdict: {
      state: isSettled ? "settled" : pays || first.length > 0 || !measured ? "open" : "best-guess",
      replace,
      p,
      // A plug that is renewed because of how it looks was not killed by its part.
      killedBy: replace.length > 1 && modes.length > 1 ? (replace[0] ?? null) : null,
      fitNowMinor,
      testMoreMinor,
      because: becauseOf(belief, standing, settledBar),
      alsoCheck: placesToCheck(repair, modes),
    },
    next: [...first, ...weighed.filter(({ test }) => !firstKeys.has(placeTestKey(test)))].slice(
      0,
      options.looks ?? defaultLooks,
    ),
    conflicts: standing.disputed,
    belief,
    circuits: namedWirings(belief),
  };
}

/** What a test is worth for its minutes: what it tells of the repair, and a little for what it tells of the wiring. */
const worth = ({ bits, wiringBits, minutes }: PlaceForecast): number =>
  (bits + wiringWorth * wiringBits) / minutes;
