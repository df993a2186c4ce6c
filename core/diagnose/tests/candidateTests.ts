import { type Observation, observationOf, observations } from "../../predict/observations/index";
import { allTools, type Tool, toolsNeeded } from "../../predict/observations/tool";
import { type Test, testKey } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type NominalColumn, nominalColumn } from "../../predict/tables/nominalColumn";
import { perCircuit, perCircuitAnd } from "../../predict/tables/perCircuit";
import type { Belief } from "../belief/belief";
import { type TestCost, testCost } from "./access";

/** A test, and the text that identifies it. */
export interface CandidateTest {
  readonly test: Test;
  readonly key: string;
  readonly cost: TestCost;
  /** What every suspect would show there in the nominal vehicle. */
  readonly column: () => NominalColumn;
}

/**
 * Every test the tools allow on this circuit, whatever the readings; including tests that search for a short, if
 * asked.
 */
export function candidateTests(
  compiled: CompiledCircuit,
  tools: readonly Tool[],
  shorts = false,
): readonly CandidateTest[] {
  return shorts ? withShorts(compiled, toolBits(tools)) : usual(compiled, toolBits(tools));
}

/** Tools as one number, one bit each. */
const toolBits = (tools: readonly Tool[]): number =>
  allTools.reduce((bits, tool, place) => (tools.includes(tool) ? bits + 2 ** place : bits), 0);

const allowed = ({ test }: CandidateTest, bits: number): boolean => {
  const needed = toolBits(toolsNeeded(observationOf(test.test).tools, test));
  return (needed & bits) === needed;
};

const everyUsual = perCircuit((compiled) => made(compiled, (model) => model.candidates(compiled)));
const everyShort = perCircuit((compiled) => made(compiled, (model) => model.shortHunt(compiled)));

const usual = perCircuitAnd((compiled, bits: number) =>
  everyUsual(compiled).filter((candidate) => allowed(candidate, bits)),
);
const withShorts = perCircuitAnd((compiled, bits: number) => [
  ...usual(compiled, bits),
  ...everyShort(compiled).filter((candidate) => allowed(candidate, bits)),
]);

function made(compiled: CompiledCircuit, testsOf: (model: Observation) => readonly Test[]): CandidateTest[] {
  return observations.flatMap(testsOf).map((test) => {
    let column: NominalColumn | undefined;
    return {
      test,
      key: testKey(test),
      cost: testCost(compiled, test),
      column: () => {
        column ??= nominalColumn(compiled, test);
        return column;
      },
    };
  });
}

/** Belief in shorts above which the tests that search for them are weighed. */
export const shortsWorth = 0.02;

const shortsOf = perCircuit((compiled) =>
  [...compiled.variants.keys()].filter((variant) =>
    compiled.variants[variant]?.fault.names.some(({ mode }) => mode === "to-ground" || mode === "to-feed"),
  ),
);

/** Belief, 0 to 1, that some wire is shorted to ground or to feed. */
export function shortsBelief(compiled: CompiledCircuit, belief: Belief): number {
  let sum = 0;
  for (const variant of shortsOf(compiled)) sum += belief.variants[variant] as number;
  return sum;
}
