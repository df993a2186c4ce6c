import type { Declined } from "../../circuit/declined";
import { notListed, type Repair } from "../../fault/repair";
import type { Reading, Test } from "../../predict/reading";
import { type CompiledCircuit, healthyVariant } from "../../predict/tables/compiledCircuit";
import { perCircuit, perCircuitAnd } from "../../predict/tables/perCircuit";
import { setupState } from "../../solve/netlist/setup";
import { nominalValues } from "../../solve/netlist/values";
import { PointSolver } from "../../solve/pointSolver";
import type { Belief } from "../belief/belief";
import type { ProofKind } from "../proof/proofStep";
import { type Expectation, expectedAt, othersOdds, readingOdds, type Support } from "./expectation";
import { speedWords } from "./pathBoard";

/** A reading as a reason names it. */
export interface Cited {
  /** Its number on the job's list. */
  readonly number: number;
  readonly reading: Reading;
}

/** A reading of a belief by its place. */
export const cite = ({ readings, numbers }: Belief, index: number): Cited => ({
  number: numbers[index] as number,
  reading: readings[index] as Reading,
});

/** Why a suspect has its rank. */
export type SuspectWhy =
  | { readonly kind: "nothing-seen" | "unlikely" | "not-listed" }
  | {
      readonly kind: "weighed";
      /**
       * The strongest reading for it, and how many times likelier it made the reading than faults in other parts did.
       */
      readonly strongest: { readonly cited: Cited; readonly times: number } | null;
      /**
       * The strongest reading against it, what the suspect predicts there, and how many times likelier other faults
       * made the reading.
       */
      readonly against: {
        readonly cited: Cited;
        readonly expected: Expectation;
        readonly times: number;
      } | null;
    };

/** Support for a verdict, for `words/` to turn into text. */
export type Reason =
  /** What the dead speeds share and the working ones do not use: branches of the circuit by id. */
  | {
      readonly kind: "path";
      readonly dead: readonly string[];
      readonly working: readonly string[];
      readonly shared: readonly PathItem[];
    }
  /** What proves a part, and the readings that show it. */
  | {
      readonly kind: "proved";
      readonly part: string;
      readonly says: ProofKind;
      readonly cited: readonly Cited[];
    }
  /** A plug or part seen damaged that the verdict does not name: it is work as well. */
  | { readonly kind: "renew-too"; readonly at: string; readonly seen: string }
  /** The verdict is almost certain, but not proved. */
  | { readonly kind: "unproved"; readonly test: Test }
  /**
   * A reading that separated the verdict from its nearest rival, the rival's prediction, what a sound vehicle would
   * have shown, and how many times likelier the verdict made it.
   */
  | {
      readonly kind: "deciding";
      readonly cited: Cited;
      readonly rival: readonly string[];
      readonly expected: Expectation;
      readonly sound: Expectation;
      readonly times: number;
    }
  | { readonly kind: "declined"; readonly declined: Declined }
  /** Nobody has seen how the circuit is wired. */
  | { readonly kind: "wiring-assumed" }
  | {
      readonly kind: "still-possible";
      readonly repairs: readonly { readonly parts: readonly string[]; readonly p: number }[];
    }
  | { readonly kind: "nothing-pays" | "complaint-only" }
  /** A reading that contradicts the others even though its test was repeated. */
  | { readonly kind: "disputed"; readonly cited: Cited }
  | { readonly kind: "paying-test"; readonly test: Test; readonly minutes: number };

/** A piece of a path as a technician would name it. */
export interface PathItem {
  readonly kind: "wire" | "pin" | "part";
  readonly id: string;
}

const telling = 2;

/** Suspects whose repair includes all these parts. */
const withPartsOf = perCircuitAnd((compiled, { parts }: Repair) =>
  [...compiled.variants.keys()].filter((other) =>
    parts.every((part) => compiled.variants[other]?.fault.parts.includes(part)),
  ),
);

/**
 * Why a suspect has its rank: the strongest reading for it and the strongest against it, with the strength of each,
 * compared with the suspects in other parts as they are believed.
 * @param variants the suspect's sizes
 */
export function suspectWhy(
  compiled: CompiledCircuit,
  belief: Belief,
  support: Support,
  variants: readonly number[],
): SuspectWhy {
  if (belief.readings.length === 0) return { kind: "nothing-seen" };
  const own = readingOdds(support, variants);
  const others = othersOdds(
    support,
    withPartsOf(compiled, compiled.variants[variants[0] as number]?.repair ?? notListed),
  );
  const ratios = own.map((odds, i) => odds / Math.max(1e-9, others[i] as number));
  const most = Math.max(...ratios);
  const least = Math.min(...ratios);
  const worst = ratios.indexOf(least);
  return {
    kind: "weighed",
    strongest: most >= telling ? { cited: cite(belief, ratios.indexOf(most)), times: most } : null,
    against:
      least <= 1 / telling
        ? {
            cited: cite(belief, worst),
            expected: expectedAt(compiled, belief.readings[worst] as Reading, variants[0] as number),
            times: 1 / Math.max(1e-9, least),
          }
        : null,
  };
}

/** A branch belongs to a speed's path above this share of the strongest branch current. */
const pathShare = 0.2;

/** Branches that carry the motor's current in each setting of the healthy circuit, by branch id. */
export const speedPaths = perCircuit((compiled): ReadonlyMap<string, ReadonlyMap<string, number>> => {
  const { netlist } = compiled;
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  const paths = new Map<string, Map<string, number>>();
  for (const setting of netlist.circuit.settings) {
    const solved = solver.solve(values, setupState(netlist, { key: "run", setting }), []);
    const motor = Math.max(0, ...netlist.motors.map(({ branch }) => Math.abs(solved.amps[branch] ?? 0)));
    const carried = new Map<string, number>();
    netlist.branches.forEach(({ id }, index) => {
      const amps = Math.abs(solved.amps[index] ?? 0);
      if (motor > 0.05 && amps >= pathShare * motor) carried.set(id, amps);
    });
    paths.set(setting, carried);
  }
  return paths;
});

interface SpeedsHeard {
  readonly dead: readonly string[];
  readonly full: readonly string[];
}

function speedsHeard(
  readings: readonly Reading[],
  paths: ReadonlyMap<string, ReadonlyMap<string, number>>,
): SpeedsHeard {
  const words = speedWords(readings);
  // Speeds in the switch's order, not in the order they were reported.
  const at = (seen: string): string[] =>
    [...paths].flatMap(([setting, path]) => (path.size > 0 && words.get(setting) === seen ? [setting] : []));
  return { dead: at("none"), full: at("normal") };
}

/**
 * The path argument, from the healthy circuit's own currents: what all dead speeds use and no working one does. Null
 * if no speed is dead.
 */
export function pathReason(compiled: CompiledCircuit, readings: readonly Reading[]): Reason | null {
  const paths = speedPaths(compiled);
  const { dead, full } = speedsHeard(readings, paths);
  if (dead.length === 0) return null;
  const working = new Set(full.flatMap((setting) => [...(paths.get(setting)?.keys() ?? [])]));
  const [first, ...rest] = dead.map((setting) => paths.get(setting) ?? new Map<string, number>());
  const shared = [...(first?.keys() ?? [])].filter(
    (id) => rest.every((path) => path.has(id)) && !working.has(id),
  );
  return { kind: "path", dead, working: full, shared: pathItems(compiled, shared) };
}

/** Branch ids as a technician would list them: wire ends count as their wire, and elements name their pack. */
function pathItems(compiled: CompiledCircuit, ids: readonly string[]): PathItem[] {
  const wires = new Set(compiled.netlist.circuit.wires.map(({ id }) => id));
  return ids
    .filter((id) => !(id.endsWith("/from") || id.endsWith("/to")) && id !== compiled.netlist.battery.id)
    .map((id) => ({ kind: wires.has(id) ? "wire" : id.includes(":") ? "pin" : "part", id }));
}

/** The readings that best separate the verdict from its nearest rival, strongest first. */
export function decisiveReasons(
  compiled: CompiledCircuit,
  belief: Belief,
  support: Support,
  chosen: readonly number[],
  rival: { readonly parts: readonly string[]; readonly variants: readonly number[] } | null,
  most = 3,
): Reason[] {
  if (!rival) return [];
  const own = readingOdds(support, chosen);
  const other = readingOdds(support, rival.variants);
  return own
    .map((odds, index) => ({ index, ratio: odds / Math.max(1e-9, other[index] as number) }))
    .filter(({ ratio, index }) => ratio >= telling && !belief.readings[index]?.heard)
    .sort((a, b) => b.ratio - a.ratio)
    .slice(0, most)
    .map(({ index, ratio }) => {
      const reading = belief.readings[index] as Reading;
      return {
        kind: "deciding",
        cited: cite(belief, index),
        rival: rival.parts,
        expected: expectedAt(compiled, reading, rival.variants[0] as number),
        sound: expectedAt(compiled, reading, healthyVariant),
        times: ratio,
      };
    });
}
