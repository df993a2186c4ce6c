import { LRUCache } from "lru-cache";
import { notListed, type Repair } from "../../fault/repair";
import { isMechanical } from "../../motor/mechanicalMode";
import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { perCircuit } from "../../predict/tables/perCircuit";
import type { Belief } from "../belief/belief";
import { type FaultCount, priorsFrom } from "../belief/learnedPrior";
import { beginning, type EarlierVisit } from "./earlierVisit";
import { believeThrough, type FailedRepair } from "./failedRepair";

/** The start of a job's belief, and the repairs tried since. */
export interface Past {
  readonly repairs: readonly FailedRepair[];
  /** The shop's counts of other families and of this circuit's own; none to use the table's odds. */
  readonly counts?: readonly FaultCount[];
  readonly familyCounts?: readonly FaultCount[];
  /** The visit that this one is a comeback of. */
  readonly earlier?: EarlierVisit | null;
}

/** Suspects counted together. */
export interface SuspectGroup {
  readonly repair: Repair;
  /** True for purely mechanical faults. A squealing motor and a dead one are listed as two suspects. */
  readonly mechanical: boolean;
}

/** A circuit's groups, starting with a cause outside the list, and each suspect's group. */
export interface SuspectGroups {
  readonly all: readonly SuspectGroup[];
  readonly of: Int32Array;
}

/**
 * The group of a suspect.
 * @param modes what is wrong; ignored if the repair has only one group, as it may have with a renewed plug in it
 */
export function groupOf({ all }: SuspectGroups, repair: Repair, modes: readonly string[]): SuspectGroup {
  const same = all.filter((group) => group.repair === repair);
  return (
    same.find(({ mechanical }) => mechanical === isMechanicalOnly(modes)) ??
    same[0] ??
    (all[0] as SuspectGroup)
  );
}

const isMechanicalOnly = (modes: readonly string[]): boolean => modes.length > 0 && modes.every(isMechanical);

/** Groups of a circuit's suspects by repair, with mechanical faults separate. */
export const suspectGroups = perCircuit(({ variants }): SuspectGroups => {
  const all: SuspectGroup[] = [{ repair: notListed, mechanical: false }];
  const of = new Int32Array(variants.length);
  variants.forEach(({ repair, fault }, variant) => {
    const mechanical = isMechanicalOnly(fault.names.map(({ mode }) => mode));
    const met = all.findIndex((group) => group.repair === repair && group.mechanical === mechanical);
    of[variant] = met < 0 ? all.push({ repair, mechanical }) - 1 : met;
  });
  return { all, of };
});

/**
 * How the belief changed, reading by reading.
 * @param past repairs between them that did not fix the fault, and the shop's counts
 * @param now by group, the belief after the last reading, if already known
 * @returns by group, its probability before the first reading and after each
 */
export function beliefHistory(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  past: Past,
  now?: ReadonlyMap<SuspectGroup, number>,
): ReadonlyMap<SuspectGroup, readonly number[]> {
  const groups = suspectGroups(compiled);
  const own = stepsOf(compiled);
  const begun = JSON.stringify([past.counts, past.familyCounts, past.earlier]);
  let key = begun;
  const steps = Array.from({ length: readings.length + 1 }, (_, taken) => {
    const repairs = past.repairs.filter(({ after }) => after <= taken);
    if (taken > 0) key += JSON.stringify(readings[taken - 1]);
    // A job's earlier steps are needed again with every reading.
    const step = `${key} ${JSON.stringify(repairs)}`;
    const known = own.get(step);
    const made =
      known ??
      (now && taken === readings.length
        ? Float64Array.from(groups.all, (group) => now.get(group) ?? 0)
        : byGroup(beliefAfter(compiled, readings.slice(0, taken), { ...past, repairs }), groups));
    own.set(step, made);
    return made;
  });
  return new Map(groups.all.map((group, place) => [group, steps.map((step) => step[place] ?? 0)]));
}

/** Steps of the most recently used histories, by what was known at each. */
const stepsOf = perCircuit(() => new LRUCache<string, Float64Array>({ max: mostSteps }));
const mostSteps = 400;

function beliefAfter(compiled: CompiledCircuit, readings: readonly Reading[], past: Past): Belief {
  const priors = priorsFrom(compiled, past.counts, past.familyCounts);
  return believeThrough(compiled, readings, past.repairs, beginning(compiled, past.earlier, priors));
}

function byGroup(belief: Belief, { all, of }: SuspectGroups): Float64Array {
  const sums = new Float64Array(all.length);
  sums[0] = belief.unknown;
  for (let variant = 0; variant < of.length; variant++) {
    const group = of[variant] as number;
    sums[group] = (sums[group] as number) + (belief.variants[variant] as number);
  }
  return sums;
}
