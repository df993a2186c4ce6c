import type { CompiledCircuit } from "../predict/compiledCircuit";
import type { Reading } from "../predict/reading";
import { lookText, resultText } from "../predict/readingText";
import { type Belief, believe } from "./belief";
import { expectedAt, readingOdds, type Support } from "./expectation";

/** A reading that fights all the others. */
export interface Conflict {
  /** Its number, from 0. */
  readonly reading: number;
  readonly why: string;
}

const contrary = 0.12;
const cured = 0.5;

/**
 * Readings the belief calls unlikely, and whose removal would make the rest agree: the slip to
 * repeat. With fewer than three readings nothing can be called a slip.
 */
export function conflicts(compiled: CompiledCircuit, belief: Belief, support: Support): Conflict[] {
  if (belief.readings.length < 3) return [];
  const all = [...belief.variants.keys()];
  const odds = readingOdds(support, all);
  return belief.readings.flatMap((reading: Reading, index) => {
    const blind = belief.scores[index]?.blind ?? 1;
    if ((odds[index] as number) > contrary * blind * 2) return [];
    const rest = belief.readings.filter((_, other) => other !== index);
    const scores = belief.scores.filter((_, other) => other !== index);
    const without = believe(compiled, rest, scores);
    const best = without.variants.indexOf(Math.max(...without.variants));
    if (without.unknown > cured) return [];
    const expected = expectedAt(compiled, reading, best);
    const why = `Reading ${index + 1} (${lookText(reading)}: ${resultText(reading)}) fights the others, which make it ${expected}; repeat it.`;
    return [{ reading: index, why }];
  });
}
