import type { Problem } from "../problem/problem";
import { setupProblems } from "../solve/netlist/setup";
import { observations } from "./observations/index";
import { type Reading, type Test, testOf } from "./reading";
import type { CompiledCircuit } from "./tables/compiledCircuit";

/** What is wrong with a look for this circuit: set-up, points and parts that it does not have. */
export function testProblems(compiled: CompiledCircuit, test: Test): Problem[] {
  const check = observations[test.test].problems as (compiled: CompiledCircuit, test: unknown) => Problem[];
  return [...setupProblems(compiled.netlist, test), ...check(compiled, test)];
}

/** What is wrong with a reading for this circuit. */
export const readingProblems = (compiled: CompiledCircuit, reading: Reading): Problem[] =>
  testProblems(compiled, testOf(reading));
