import { LRUCache } from "lru-cache";
import type { Reading } from "../../predict/reading";
import type { CompiledCircuit, Variant } from "../../predict/tables/compiledCircuit";
import type { Belief } from "../belief/belief";
import { type FaultCount, priorsFrom } from "../belief/learnedPrior";
import { believeThrough, type FailedRepair } from "./failedRepair";

/** What a job's belief begins from, and what was tried in between. */
export interface Past {
  readonly repairs: readonly FailedRepair[];
  /** The shop's counts of other families and of this circuit's own; none for the table's odds. */
  readonly counts?: readonly FaultCount[];
  readonly familyCounts?: readonly FaultCount[];
}

/** Suspects counted together: the groups by name, `unknown` first, and each suspect's place among them. */
export interface SuspectGroups {
  readonly names: readonly string[];
  readonly of: Int32Array;
}

/** Groups of a circuit's suspects. */
export function suspectGroups(
  { variants }: CompiledCircuit,
  groupOf: (variant: Variant) => string,
): SuspectGroups {
  const own = variants.map(groupOf);
  const names = [...new Set(["unknown", ...own])];
  const place = new Map(names.map((name, index) => [name, index]));
  return { names, of: Int32Array.from(own, (name) => place.get(name) ?? 0) };
}

/**
 * How the belief moved, reading by reading.
 * @param past repairs between them that did not hold, and the shop's counts
 * @param groups the same object each time: what is known by it is kept
 * @param now by group, how it stands after the last reading, where that is known already
 * @returns by group, its probability before the first reading and after each
 */
export function beliefHistory(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  past: Past,
  groups: SuspectGroups,
  now?: ReadonlyMap<string, number>,
): ReadonlyMap<string, readonly number[]> {
  const kept = compiled.remember("belief history", () => new WeakMap<SuspectGroups, Steps>());
  const own = kept.get(groups) ?? new LRUCache<string, Float64Array>({ max: mostSteps });
  kept.set(groups, own);
  const begun = JSON.stringify([past.counts, past.familyCounts]);
  let key = begun;
  const steps = Array.from({ length: readings.length + 1 }, (_, taken) => {
    const repairs = past.repairs.filter(({ after }) => after <= taken);
    if (taken > 0) key += JSON.stringify(readings[taken - 1]);
    // A job's earlier steps are asked for again with every reading.
    const step = `${key} ${JSON.stringify(repairs)}`;
    const known = own.get(step);
    const made =
      known ??
      (now && taken === readings.length
        ? Float64Array.from(groups.names, (name) => now.get(name) ?? 0)
        : byGroup(beliefAfter(compiled, readings.slice(0, taken), { ...past, repairs }), groups));
    own.set(step, made);
    return made;
  });
  return new Map(groups.names.map((name, group) => [name, steps.map((step) => step[group] ?? 0)]));
}

type Steps = LRUCache<string, Float64Array>;
const mostSteps = 400;

function beliefAfter(compiled: CompiledCircuit, readings: readonly Reading[], past: Past): Belief {
  const priors = priorsFrom(compiled, past.counts, past.familyCounts);
  return believeThrough(compiled, readings, past.repairs, priors);
}

function byGroup(belief: Belief, { names, of }: SuspectGroups): Float64Array {
  const sums = new Float64Array(names.length);
  sums[0] = belief.unknown;
  for (let variant = 0; variant < of.length; variant++) {
    const group = of[variant] as number;
    sums[group] = (sums[group] as number) + (belief.variants[variant] as number);
  }
  return sums;
}
