import { notListed, type Repair } from "../fault/repair";
import type { WiringFacts } from "./candidate";
import type { BelievedCandidate, WiringBelief } from "./wiringBelief";

/** A wiring with its share of the belief. */
export interface BelievedWiring {
  readonly id: string;
  readonly title: string;
  readonly p: number;
  readonly facts: WiringFacts;
}

/** Share of the belief that the wirings named carry. */
const namedShare = 0.99;
/** The wirings that carry most of the belief. */
export function namedWirings({ candidates }: WiringBelief): BelievedWiring[] {
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
export const under = ({ repairs, variants }: BelievedCandidate, repair: Repair): number =>
  variants.reduce((sum, share, variant) => (repairs[variant] === repair ? sum + share : sum), 0);

/** The likeliest repair under one wiring. */
export function leadingUnder({ repairs, variants }: BelievedCandidate): Repair {
  const sums = new Map<Repair, number>();
  for (const [variant, share] of variants.entries()) {
    const repair = repairs[variant] ?? notListed;
    sums.set(repair, (sums.get(repair) ?? 0) + share);
  }
  const [best] = [...sums].sort((a, b) => b[1] - a[1]);
  return best?.[0] ?? notListed;
}

const factNames = [
  "switchedSide",
  "drive",
  "relay",
  "highRelay",
  "lowRelays",
  "highAtPack",
  "packShape",
] as const;

/** Shares of a fact's values over the wirings. */
export function factShares(
  { candidates }: WiringBelief,
  fact: keyof WiringFacts,
): Map<string | boolean, number> {
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

/** A fact of the wiring that the readings have settled. */
export interface KnownFact {
  readonly fact: keyof WiringFacts;
  readonly value: string | boolean;
  readonly p: number;
}

/** Facts of the wiring that the readings have settled, which nobody saw at the start. */
export function factsOf(belief: WiringBelief): KnownFact[] {
  return toldFacts.flatMap((fact): KnownFact[] => {
    const [best] = [...factShares(belief, fact)].sort((a, b) => b[1] - a[1]);
    if (!best || best[1] < knownFact) return [];
    const [value, p] = best;
    const before = belief.candidates.reduce(
      (sum, { candidate }) => (candidate.facts[fact] === value ? sum + candidate.prior : sum),
      0,
    );
    return before >= knownFact ? [] : [{ fact, value, p }];
  });
}

/** The fact in which a wiring differs from the likeliest one. */
export function differingFact(
  [first]: readonly BelievedCandidate[],
  other: BelievedCandidate,
): keyof WiringFacts {
  const facts = first?.candidate.facts;
  return factNames.find((fact) => facts?.[fact] !== other.candidate.facts[fact]) ?? "relay";
}
