import type { CompiledCircuit, Variant } from "../predict/compiledCircuit";
import type { Reading } from "../predict/reading";
import { type Belief, believe } from "./belief";
import { scoreReading } from "./readingScore";

/**
 * How the belief moved, reading by reading.
 * @param groupOf the group a suspect is counted in; `unknown` is a group of its own
 * @returns by group, its probability before the first reading and after each
 */
export function beliefHistory(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  groupOf: (variant: Variant) => string,
): ReadonlyMap<string, readonly number[]> {
  const groups = compiled.variants.map(groupOf);
  const steps = Array.from({ length: readings.length + 1 }, (_, taken) =>
    byGroup(beliefAfter(compiled, readings.slice(0, taken)), groups),
  );
  return new Map(
    ["unknown", ...new Set(groups)].map((group) => [group, steps.map((step) => step.get(group) ?? 0)]),
  );
}

type Suspected = Pick<Belief, "variants" | "unknown">;

/** The belief after some readings; a job's earlier steps are asked for again with every reading. */
function beliefAfter(compiled: CompiledCircuit, readings: readonly Reading[]): Suspected {
  return compiled.remember(`belief after ${JSON.stringify(readings)}`, (): Suspected => {
    const scores = readings.map((reading) => scoreReading(compiled, reading));
    const { variants, unknown } = believe(compiled, readings, scores);
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
