import { notListed, type Repair } from "../fault/repair";
import type { WiringBelief } from "./wiringBelief";

/** A fault by place, over every wiring that has it. */
export interface PlaceSuspect {
  /** `pack:open`, or `motor:tight+pack:open`; `unknown` for a cause no wiring lists. */
  readonly fault: string;
  readonly repair: Repair;
  readonly modes: readonly string[];
  readonly p: number;
  /** Number of likely wirings under which it is likely too. */
  readonly wirings: number;
  /** Its likeliest variant under the likeliest wiring; null if it is not a fault of that wiring. */
  readonly variant: number | null;
}

/** The same with the number of its group: suspects that no test tells apart share it. */
export interface GroupedSuspect extends PlaceSuspect {
  readonly group: number;
}

/** A wiring, and a fault under one, count as likely from this share on. */
const likelyWiring = 0.01;
const likelyFault = 0.005;

/** A suspect while it is added up. */
interface Counted {
  readonly repair: Repair;
  readonly modes: readonly string[];
  p: number;
  wirings: number;
  variant: number | null;
}

/** Every fault by place, likeliest first. */
export function suspectsOf({ candidates }: WiringBelief): PlaceSuspect[] {
  const met = new Map<string, Counted>();
  let unknown = 0;
  for (const [place, { candidate, compiled, repairs, variants, unknown: own, p }] of candidates.entries()) {
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
        variant: null,
      };
      if (place === 0 && (known.variant === null || share > (variants[known.variant] ?? 0)))
        known.variant = variant;
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
    { fault: "unknown", repair: notListed, modes: [], p: unknown, wirings: 0, variant: null },
  ].sort((a, b) => b.p - a.p);
}

/** Probability that each place needs work, likeliest first; both places of a pair count. */
export function partsOf({ repairs }: WiringBelief): { part: string; p: number }[] {
  const sums = new Map<string, number>();
  for (const [repair, p] of repairs)
    for (const part of repair === notListed ? ["unknown"] : repair.parts)
      sums.set(part, (sums.get(part) ?? 0) + p);
  return [...sums].map(([part, p]) => ({ part, p })).sort((a, b) => b.p - a.p);
}
