import type { CompiledCircuit } from "../predict/compiledCircuit";
import type { Look } from "../predict/reading";
import type { NumberTest, WordTest } from "../predict/testModel";
import { testModels } from "../predict/tests/index";

/** Odds this far apart, or displays this many deviations apart, tell two suspects from each other. */
const apartOdds = 0.3;
const apartSigmas = 4;

/** Whether a look tells suspect i from suspect j, as a function of the two. */
function telling(
  compiled: CompiledCircuit,
  look: Look,
  suspects: readonly number[],
): (i: number, j: number) => boolean {
  const model = testModels[look.test];
  if (model.gives === "word") {
    const word = model as unknown as WordTest<"light">;
    const oddsAt = word.odds(compiled, look as never, false);
    const odds = suspects.map((variant) => {
      const own = new Float64Array(word.outcomes.length);
      oddsAt(variant, 0, own);
      return own;
    });
    return (i, j) =>
      (odds[i] as Float64Array).some((p, k) => Math.abs(p - (odds[j]?.[k] as number)) > apartOdds);
  }
  const number = model as NumberTest<"volts">;
  const value = number.value(compiled, look as never);
  const shown = suspects.map((variant) => value(compiled.variants[variant]?.rows[0]?.row ?? 0, 0));
  return (i, j) => {
    const [a, b] = [shown[i] as number, shown[j] as number];
    const gap = Math.abs(number.scale(a) - number.scale(b));
    return gap > apartSigmas * number.sigma(Math.min(Math.max(a, b), 100));
  };
}

/**
 * Numbers suspects so that those no look can tell apart share a number.
 * @param suspects a variant of each, likeliest first
 * @param looks every look the tools allow
 */
export function indistinguishable(
  compiled: CompiledCircuit,
  suspects: readonly number[],
  looks: readonly Look[],
): number[] {
  const told = suspects.map(() => new Set<number>());
  for (const look of looks) {
    const tells = telling(compiled, look, suspects);
    suspects.forEach((_, i) => {
      for (let j = 0; j < i; j++) if (!told[i]?.has(j) && tells(i, j)) told[i]?.add(j);
    });
  }
  const groups: number[] = [];
  let count = 0;
  suspects.forEach((_, i) => {
    const like = Array.from({ length: i }, (_, j) => j).find((j) => !told[i]?.has(j));
    groups.push(like === undefined ? ++count : (groups[like] as number));
  });
  return groups;
}
