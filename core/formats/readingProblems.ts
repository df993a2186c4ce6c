import type { CompiledCircuit } from "../predict/compiledCircuit";
import { lookOf, type Reading } from "../predict/reading";
import { testModels } from "../predict/tests/index";
import { setupProblems } from "../solve/setup";
import type { Problem } from "./problem";

/** What is wrong with a reading for this circuit: set-up, points and parts that it does not have. */
export function readingProblems(compiled: CompiledCircuit, reading: Reading): Problem[] {
  const model = testModels[reading.test];
  const check = model.problems as (compiled: CompiledCircuit, look: unknown) => Problem[];
  return [...setupProblems(compiled.netlist, reading), ...check(compiled, lookOf(reading))];
}
