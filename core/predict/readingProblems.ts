import type { Problem } from "../problem/problem";
import { setupProblems } from "../solve/netlist/setup";
import { observationOf } from "./observations/index";
import { type Reading, type Test, testOf } from "./reading";
import type { CompiledCircuit } from "./tables/compiledCircuit";

/** What is wrong with a test on this circuit: set-up, points and parts that it does not have. */
export function testProblems(compiled: CompiledCircuit, test: Test): Problem[] {
  return [...setupProblems(compiled.netlist, test), ...observationOf(test.test).problems(compiled, test)];
}

/** What is wrong with a reading for this circuit. */
export const readingProblems = (compiled: CompiledCircuit, reading: Reading): Problem[] =>
  testProblems(compiled, testOf(reading));
