import { believe } from "../diagnose/belief/belief";
import { scoreReadings } from "../diagnose/belief/readingScore";
import { proofOf } from "../diagnose/proof/proof";
import { notListed, type Repair } from "../fault/repair";
import {
  defaultStoppingCosts,
  minutesMinor,
  type RepairCost,
  repairDefaults,
  type StoppingCosts,
} from "../money/stoppingCosts";
import { allTools, type Tool } from "../predict/observations/tool";
import { type Reading, testOf } from "../predict/reading";
import type { WiringFacts } from "./candidate";
import type { CandidateCache } from "./compiledCandidate";
import { piecesOf } from "./piece";
import type { RepairPlace } from "./place";
import { type PlaceForecast, PlaceForecasts } from "./placeForecast";
import { placeTestFor } from "./placeOfTest";
import type { PlaceReading } from "./placeReading";
import { concreteReadings, keyOfPlaceReading, labelsMet, type PlaceTest, placeTestKey } from "./placeTest";
import { isWithin, placeTests } from "./placeTests";
import type { SeenCar } from "./seenCar";
import { type BelievedCandidate, believeWiring, type WiringBelief } from "./wiringBelief";

/** A fault by place, over every wiring that has it. */
export interface PlaceSuspect {
  /** `pack:open`, or `motor:tight+pack:open`; `unknown` for a cause no wiring lists. */
  readonly fault: string;
  readonly repair: Repair;
  readonly modes: readonly string[];
  readonly p: number;
  /** Number of likely wirings under which it is likely too. */
  readonly wirings: number;
}

/** A wiring with its share of the belief. */
export interface BelievedWiring {
  readonly id: string;
  readonly title: string;
  readonly p: number;
  readonly facts: WiringFacts;
}

/** Why a verdict on a vehicle without a diagram stands as it does. */
export type WiringReason =
  | { readonly kind: "complaint-only" }
  /** The repair is the same under every wiring that is still likely. */
  | { readonly kind: "holds-under-all"; readonly wirings: number }
  /** Another repair is right under a wiring that is still likely. */
  | { readonly kind: "wiring-open"; readonly fact: keyof WiringFacts }
  | { readonly kind: "proof-missing" }
  | { readonly kind: "proved" }
  /** What is known of the wiring, from the readings. */
  | {
      readonly kind: "fact";
      readonly fact: keyof WiringFacts;
      readonly value: string | boolean;
      readonly p: number;
    }
  /** The control may use a data bus: it is left to the maker's procedure. */
  | { readonly kind: "may-be-bus"; readonly p: number };

export interface WiringVerdict {
  readonly state: "open" | "settled" | "best-guess";
  readonly replace: readonly RepairPlace[];
  readonly p: number;
  readonly fitNowMinor: number;
  readonly testMoreMinor: number | null;
  readonly because: readonly WiringReason[];
  readonly alsoCheck: readonly RepairPlace[];
}

/** The diagnosis of a vehicle without a diagram. */
export interface WiringDiagnosis {
  readonly suspects: readonly PlaceSuspect[];
  readonly parts: readonly { readonly part: string; readonly p: number }[];
  readonly verdict: WiringVerdict;
  readonly next: readonly PlaceForecast[];
  /** The wirings that carry 99 % of the belief, likeliest first. */
  readonly circuits: readonly BelievedWiring[];
}

export interface WiringOptions {
  readonly tools?: readonly Tool[];
  readonly costs?: StoppingCosts;
  /** How many next tests to return; 8 by default. */
  readonly looks?: number;
}

const defaultLooks = 8;
/** Share of the belief that the wirings named carry. */
const namedShare = 0.99;
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
const placesOf = ({ parts }: Repair): RepairPlace[] => parts.filter(isRepairPlace);

const noRepair: RepairCost = { priceMinor: 0, minutes: 60 };
const fitMinor = (repair: Repair, costs: StoppingCosts): number =>
  placesOf(repair).reduce((sum, place) => {
    const { priceMinor, minutes } =
      costs.repairs?.[kindOf[place]] ?? repairDefaults[kindOf[place]] ?? noRepair;
    return sum + priceMinor + minutesMinor(minutes, costs);
  }, 0);

/** Expected cost of the repair that is best under a belief. */
function bestMinor(repairs: ReadonlyMap<Repair, number>, costs: StoppingCosts): number {
  const whole = [...repairs.values()].reduce((sum, p) => sum + p, 0);
  let best = Number.POSITIVE_INFINITY;
  for (const [repair, p] of repairs) {
    if (repair === notListed) continue;
    best = Math.min(best, fitMinor(repair, costs) + (1 - p / whole) * costs.comebackMinor);
  }
  return best;
}

/** A wiring, and a fault under one, count as likely from this share on. */
const likelyWiring = 0.01;
const likelyFault = 0.005;

/** Every fault by place, likeliest first. */
function suspectsOf({ candidates }: WiringBelief): PlaceSuspect[] {
  const met = new Map<string, { repair: Repair; modes: readonly string[]; p: number; wirings: number }>();
  let unknown = 0;
  for (const { candidate, compiled, repairs, variants, unknown: own, p } of candidates) {
    unknown += p * own;
    const here = new Map<string, number>();
    compiled.variants.forEach(({ fault }, variant) => {
      const fullName = fault.names
        .map(({ mode }, at) => `${candidate.repairPlace.get(fault.parts[at] ?? "") ?? "duct"}:${mode}`)
        .join("+");
      const share = variants[variant] ?? 0;
      here.set(fullName, (here.get(fullName) ?? 0) + share);
      const known = met.get(fullName) ?? {
        repair: repairs[variant] ?? notListed,
        modes: fault.names.map(({ mode }) => mode),
        p: 0,
        wirings: 0,
      };
      known.p += p * share;
      met.set(fullName, known);
    });
    if (p < likelyWiring) continue;
    for (const [fullName, share] of here) {
      const known = met.get(fullName);
      if (known && share >= likelyFault) known.wirings += 1;
    }
  }
  return [
    ...[...met].map(([fault, own]) => ({ fault, ...own })),
    { fault: "unknown", repair: notListed, modes: [], p: unknown, wirings: 0 },
  ].sort((a, b) => b.p - a.p);
}

function partsOf({ repairs }: WiringBelief): { part: string; p: number }[] {
  const sums = new Map<string, number>();
  for (const [repair, p] of repairs)
    for (const part of repair === notListed ? ["unknown"] : repair.parts)
      sums.set(part, (sums.get(part) ?? 0) + p);
  return [...sums].map(([part, p]) => ({ part, p })).sort((a, b) => b.p - a.p);
}

/** The wirings that carry most of the belief. */
function namedWirings({ candidates }: WiringBelief): BelievedWiring[] {
  const named: BelievedWiring[] = [];
  let sum = 0;
  for (const { candidate, p } of candidates) {
    if (sum >= namedShare) break;
    sum += p;
    named.push({ id: candidate.id, title: candidate.title, p, facts: candidate.facts });
  }
  return named;
}

/** Belief of a repair under one wiring. */
const under = ({ repairs, variants }: BelievedCandidate, repair: Repair): number =>
  variants.reduce((sum, share, variant) => (repairs[variant] === repair ? sum + share : sum), 0);

/** The likeliest repair under one wiring. */
function leadingUnder({ repairs, variants }: BelievedCandidate): Repair {
  const sums = new Map<Repair, number>();
  for (const [variant, share] of variants.entries()) {
    const repair = repairs[variant] ?? notListed;
    sums.set(repair, (sums.get(repair) ?? 0) + share);
  }
  const [best] = [...sums].sort((a, b) => b[1] - a[1]);
  return best?.[0] ?? notListed;
}

/** What proves a repair under one wiring. */
interface ProofUnder {
  readonly complete: boolean;
  /** The tests to take first: those that a reading contradicts again, then those the proof still needs. */
  readonly missing: readonly PlaceTest[];
}

/** A reading contradicts a fault that makes it this much less likely than a mistake would (judgement). */
const contradicts = 0.2;

/** The readings that a fault does not explain. */
function unexplained(
  { compiled }: BelievedCandidate,
  variant: number,
  readings: readonly Reading[],
): Reading[] {
  const samples = compiled.samples.length;
  return scoreReadings(compiled, readings).flatMap(({ odds, blind }, index) => {
    let sum = 0;
    for (let sample = 0; sample < samples; sample++) sum += odds[variant * samples + sample] as number;
    const reading = readings[index];
    return reading && sum / samples < contradicts * blind ? [reading] : [];
  });
}

/** What proves a repair under one wiring, with what its labels most likely stand for. */
function proofUnder(
  own: BelievedCandidate,
  repair: Repair,
  readings: readonly PlaceReading[],
  tools: readonly Tool[],
): ProofUnder {
  const { candidate, compiled, states, variants } = own;
  const meanings = states[0]?.meanings ?? new Map();
  const concrete: Reading[] = readings.flatMap((reading) =>
    piecesOf(candidate, compiled.netlist, reading).flatMap((piece) => concreteReadings(piece, meanings)),
  );
  let likeliest = -1;
  own.repairs.forEach((other, variant) => {
    if (other === repair && (likeliest < 0 || (variants[variant] ?? 0) > (variants[likeliest] ?? 0)))
      likeliest = variant;
  });
  const variant = compiled.variants[likeliest];
  if (!variant) return { complete: false, missing: [] };
  const disputed = unexplained(own, likeliest, concrete);
  const proof = proofOf(compiled, believe(compiled, concrete), variant.repair, tools);
  return {
    complete: proof.complete && disputed.length === 0,
    missing: [...disputed.map(testOf), ...proof.missing.map(({ look }) => look)].flatMap(
      (test) => placeTestFor(candidate, meanings, test) ?? [],
    ),
  };
}

const factNames = ["switchedSide", "drive", "relay", "highRelay", "highAtPack"] as const;

/** Shares of a fact's values over the wirings. */
function factShares({ candidates }: WiringBelief, fact: keyof WiringFacts): Map<string | boolean, number> {
  const shares = new Map<string | boolean, number>();
  for (const { candidate, p } of candidates) {
    const value = candidate.facts[fact];
    if (value !== undefined) shares.set(value, (shares.get(value) ?? 0) + p);
  }
  return shares;
}

/** Facts worth telling. */
const toldFacts = ["switchedSide", "drive", "relay"] as const;
/** A fact counts as known from this share on. */
const knownFact = 0.95;

/** Facts of the wiring that the readings have settled, which nobody saw at the start. */
function factsOf(belief: WiringBelief): WiringReason[] {
  return toldFacts.flatMap((fact): WiringReason[] => {
    const [best] = [...factShares(belief, fact)].sort((a, b) => b[1] - a[1]);
    if (!best || best[1] < knownFact) return [];
    const [value, p] = best;
    const before = belief.candidates.reduce(
      (sum, { candidate }) => (candidate.facts[fact] === value ? sum + candidate.prior : sum),
      0,
    );
    return before >= knownFact ? [] : [{ kind: "fact", fact, value, p }];
  });
}

/** The fact in which a wiring differs from the likeliest one. */
function differingFact([first]: readonly BelievedCandidate[], other: BelievedCandidate): keyof WiringFacts {
  const facts = first?.candidate.facts;
  return factNames.find((fact) => facts?.[fact] !== other.candidate.facts[fact]) ?? "relay";
}

/** Readings in which something was seen or measured on the vehicle. */
const isMeasured = ({ heard, test }: PlaceReading): boolean => !heard && test !== "history";

/**
 * Diagnoses a vehicle whose diagram nobody has: which repair, under which wirings, and what to test next. A repair is
 * confirmed only if it holds, with its proof, under every wiring that carries more than the shop's bar leaves over.
 */
export function diagnoseWiring(
  seen: SeenCar,
  readings: readonly PlaceReading[],
  cache: CandidateCache,
  options: WiringOptions = {},
): WiringDiagnosis {
  const costs = options.costs ?? defaultStoppingCosts;
  const tools = options.tools ?? allTools;
  const belief = believeWiring(seen, readings, cache);
  const ranked = [...belief.repairs].filter(([repair]) => repair !== notListed).sort((a, b) => b[1] - a[1]);
  const [repair = notListed, p = 0] = ranked[0] ?? [];
  const labels = labelsMet(
    belief.candidates.flatMap(({ candidate, compiled }) =>
      readings.flatMap((reading) => piecesOf(candidate, compiled.netlist, reading)),
    ),
  );
  const forecasts = new PlaceForecasts(belief, labels);
  const taken = new Set(readings.filter(isMeasured).map(keyOfPlaceReading));
  const weighed = placeTests(forecasts.candidates(), labels)
    .filter((test) => isWithin(test, tools) && !taken.has(placeTestKey(test)))
    .map((test) => forecasts.of(test))
    .filter(({ bits, wiringBits }) => bits + wiringWorth * wiringBits >= leastBits)
    .sort((a, b) => worth(b) - worth(a));
  const measured = readings.some(isMeasured);
  const likely = belief.candidates.filter((own) => own.p > 1 - costs.settledBar);
  const against = likely.find((own) => under(own, repair) < leastHeld);
  const otherwise = likely.find((own, place) => place > 0 && leadingUnder(own) !== repair);
  const bus = factShares(belief, "drive").get("bus") ?? 0;
  const fitNowMinor = bestMinor(belief.repairs, costs);
  const testMoreMinor = weighed.reduce<number | null>((least, { minutes, outcomes }) => {
    const own =
      minutesMinor(minutes, costs) +
      outcomes.reduce((sum, outcome) => sum + outcome.p * bestMinor(outcome.repairs, costs), 0);
    return least === null || own < least ? own : least;
  }, null);
  const proofs =
    p >= worthProving && repair !== notListed && measured
      ? likely.map((own) => proofUnder(own, repair, readings, tools))
      : [];
  const proved = proofs.length > 0 && proofs.every(({ complete }) => complete);
  const missing = proofs.flatMap((own) => own.missing).filter((test) => !taken.has(placeTestKey(test)));
  const sure = measured && p >= costs.settledBar && !against && proved;
  const first =
    p >= costs.settledBar || weighed.length === 0
      ? missing.slice(0, 2).map((test) => forecasts.of(test))
      : [];
  const firstKeys = new Set(first.map(({ test }) => placeTestKey(test)));
  const next = [...first, ...weighed.filter(({ test }) => !firstKeys.has(placeTestKey(test)))];
  const pays = testMoreMinor !== null && testMoreMinor < fitNowMinor;
  const state = sure ? "settled" : pays || first.length > 0 || !measured ? "open" : "best-guess";
  return {
    suspects: suspectsOf(belief),
    parts: partsOf(belief),
    verdict: {
      state,
      replace: placesOf(repair),
      p,
      fitNowMinor,
      testMoreMinor,
      because: [
        ...(measured ? [] : [{ kind: "complaint-only" as const }]),
        ...factsOf(belief),
        ...(otherwise && measured
          ? [{ kind: "wiring-open" as const, fact: differingFact(belief.candidates, otherwise) }]
          : []),
        ...(!against && measured && p >= worthProving
          ? [{ kind: "holds-under-all" as const, wirings: likely.length }]
          : []),
        ...(p >= worthProving && measured
          ? [{ kind: proved ? ("proved" as const) : ("proof-missing" as const) }]
          : []),
        ...(bus >= 1 - costs.settledBar ? [{ kind: "may-be-bus" as const, p: bus }] : []),
      ],
      alsoCheck: heated(repair) ? ["motor"] : [],
    },
    next: next.slice(0, options.looks ?? defaultLooks),
    circuits: namedWirings(belief),
  };
}

/** What a test is worth for its minutes: what it tells of the repair, and a little for what it tells of the wiring. */
const worth = ({ bits, wiringBits, minutes }: PlaceForecast): number =>
  (bits + wiringWorth * wiringBits) / minutes;

/** A burnt-out pack, plug or fuse had a cause, which is usually the motor. */
const heated = (repair: Repair): boolean =>
  placesOf(repair).some((place) => place === "pack" || place === "fuse" || place.endsWith("-plug")) &&
  !repair.parts.includes("motor");
