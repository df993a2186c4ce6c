import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import type { Belief } from "../belief/belief";
import { contrary } from "./conflict";
import { type Expectation, expectedAt, type Support } from "./expectation";

/** One reading beside what a suspect would have shown there. */
export interface Agreement {
  /** Its place among the readings, from 0. */
  readonly reading: number;
  readonly expected: Expectation;
  /** False where the suspect makes what was seen unlikely. */
  readonly agrees: boolean;
}

/**
 * The readings taken as if one suspect were true: what it predicts for each, and whether what was seen fits. A
 * reading fits when the suspect, in the vehicles it is believed in, makes it no less likely than blind chance
 * would by the share that names conflicts.
 * @param variant the suspect at its likeliest size
 */
export function asIfTrue(
  compiled: CompiledCircuit,
  belief: Belief,
  support: Support,
  variant: number,
): Agreement[] {
  const { weight, odds } = support.of(variant);
  return belief.readings.map((reading: Reading, index) => {
    const blind = belief.scores[index]?.blind ?? 1;
    return {
      reading: index,
      expected: expectedAt(compiled, reading, variant),
      agrees: (odds[index] as number) / weight > contrary * blind,
    };
  });
}
