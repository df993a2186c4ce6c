import type { Problem } from "../problem/problem";
import { setupProblems } from "../solve/netlist/setup";
import { testModels } from "./observations/index";
import { type Look, lookOf, type Reading } from "./reading";
import type { CompiledCircuit } from "./tables/compiledCircuit";

/** What is wrong with a look for this circuit: set-up, points and parts that it does not have. */
export function lookProblems(compiled: CompiledCircuit, look: Look): Problem[] {
  const check = testModels[look.test].problems as (compiled: CompiledCircuit, look: unknown) => Problem[];
  return [...setupProblems(compiled.netlist, look), ...check(compiled, look)];
}

/** What is wrong with a reading for this circuit. */
export const readingProblems = (compiled: CompiledCircuit, reading: Reading): Problem[] =>
  lookProblems(compiled, lookOf(reading));
