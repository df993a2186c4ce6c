import { type Observation, observations } from "../../predict/observations/index";
import { type Tool, toolsNeeded } from "../../predict/observations/tool";
import { type Test, testKey } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type NominalColumn, nominalColumn } from "../../predict/tables/nominalColumn";
import type { Belief } from "../belief/belief";
import { type TestCost, testCost } from "./access";

/** A look and the text that tells it from others. */
export interface CandidateTest {
  readonly test: Test;
  readonly key: string;
  readonly cost: TestCost;
  /** What every suspect would show there in the nominal vehicle. */
  readonly column: () => NominalColumn;
}

/** Every look the tools allow on this circuit, whatever has been seen; those that hunt a short if asked. */
export function candidateTests(
  compiled: CompiledCircuit,
  tools: readonly Tool[],
  shorts = false,
): readonly CandidateTest[] {
  return compiled.remember(`candidates ${tools.join()} ${shorts}`, () =>
    shorts
      ? [...candidateTests(compiled, tools), ...made(compiled, tools, (model) => model.shortHunt(compiled))]
      : made(compiled, tools, (model) => model.candidates(compiled)),
  );
}

function made(
  compiled: CompiledCircuit,
  tools: readonly Tool[],
  looksOf: (model: Observation) => readonly Test[],
): CandidateTest[] {
  return observations
    .flatMap((model) =>
      looksOf(model).filter((test) => toolsNeeded(model.tools, test).every((tool) => tools.includes(tool))),
    )
    .map((test) => {
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

/** Belief in shorts above which the looks that hunt them are weighed. */
export const shortsWorth = 0.02;

/** Belief, 0 to 1, that some wire is shorted to ground or to feed. */
export function shortsBelief(compiled: CompiledCircuit, belief: Belief): number {
  const shorts = compiled.remember("shorts", () =>
    [...compiled.variants.keys()].filter((variant) =>
      compiled.variants[variant]?.fault.names.some(({ mode }) => mode === "to-ground" || mode === "to-feed"),
    ),
  );
  let sum = 0;
  for (const variant of shorts) sum += belief.variants[variant] as number;
  return sum;
}
