import type { CompiledCircuit, Variant } from "../predict/compiledCircuit";
import type { Reading } from "../predict/reading";
import type { Belief } from "./belief";
import { believeThrough, type FailedRepair } from "./failedRepair";
import { type FaultCount, priorsFrom } from "./learnedPrior";

/** What a job's belief begins from, and what was tried in between. */
export interface Past {
  readonly repairs: readonly FailedRepair[];
  /** The shop's counts of other families and of this circuit's own; none for the table's odds. */
  readonly counts?: readonly FaultCount[];
  readonly familyCounts?: readonly FaultCount[];
}

/**
 * How the belief moved, reading by reading.
 * @param past repairs between them that did not hold, and the shop's counts
 * @param groupOf the group a suspect is counted in; `unknown` is a group of its own
 * @returns by group, its probability before the first reading and after each
 */
export function beliefHistory(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  past: Past,
  groupOf: (variant: Variant) => string,
): ReadonlyMap<string, readonly number[]> {
  const groups = compiled.variants.map(groupOf);
  const steps = Array.from({ length: readings.length + 1 }, (_, taken) =>
    byGroup(
      beliefAfter(compiled, readings.slice(0, taken), {
        ...past,
        repairs: past.repairs.filter(({ after }) => after <= taken),
      }),
      groups,
    ),
  );
  return new Map(
    ["unknown", ...new Set(groups)].map((group) => [group, steps.map((step) => step.get(group) ?? 0)]),
  );
}

type Suspected = Pick<Belief, "variants" | "unknown">;

/** The belief after some readings; a job's earlier steps are asked for again with every reading. */
function beliefAfter(compiled: CompiledCircuit, readings: readonly Reading[], past: Past): Suspected {
  return compiled.remember(`belief after ${JSON.stringify([readings, past])}`, (): Suspected => {
    const priors = priorsFrom(compiled, past.counts, past.familyCounts);
    const { variants, unknown } = believeThrough(compiled, readings, past.repairs, priors);
    return { variants, unknown };
  });
}

function byGroup(belief: Suspected, groups: readonly string[]): Map<string, number> {
  const sums = new Map([["unknown", belief.unknown]]);
  groups.forEach((group, variant) => {
    sums.set(group, (sums.get(group) ?? 0) + (belief.variants[variant] as number));
  });
  return sums;
}
