import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import type { Belief } from "../belief/belief";
import { contrary } from "./conflict";
import { type Expectation, expectedAt, type Support } from "./expectation";

/** One reading compared with what a suspect would have shown. */
export interface Agreement {
  /** Its place among the readings, from 0. */
  readonly reading: number;
  readonly expected: Expectation;
  /** False if the suspect makes the reading unlikely. */
  readonly agrees: boolean;
}

/**
 * The readings compared with one suspect's predictions. A reading fits unless the suspect, in the sampled vehicles
 * that carry its belief, makes it as unlikely, relative to blind chance, as the readings that conflicts name.
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
