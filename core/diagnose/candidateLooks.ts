import type { CompiledCircuit } from "../predict/compiledCircuit";
import { type Look, lookKey } from "../predict/reading";
import { type TestModel, type Tool, toolsNeeded } from "../predict/testModel";
import { testModels } from "../predict/tests/index";
import { type LookCost, lookCost } from "./access";
import type { Belief } from "./belief";

/** A look and the text that tells it from others. */
export interface Candidate {
  readonly look: Look;
  readonly key: string;
  readonly cost: LookCost;
}

/** Every look the tools allow on this circuit, whatever has been seen; those that hunt a short if asked. */
export function candidateLooks(
  compiled: CompiledCircuit,
  tools: readonly Tool[],
  shorts = false,
): readonly Candidate[] {
  return compiled.remember(`candidates ${tools.join()} ${shorts}`, () =>
    allLooks(compiled, tools, shorts).map((look) => ({
      look,
      key: lookKey(look),
      cost: lookCost(compiled, look),
    })),
  );
}

function allLooks(compiled: CompiledCircuit, tools: readonly Tool[], shorts: boolean): Look[] {
  return (Object.values(testModels) as TestModel[]).flatMap((model) => {
    const looks = [...model.candidates(compiled), ...(shorts ? (model.shortHunt?.(compiled) ?? []) : [])];
    return (looks as Look[]).filter((look) =>
      toolsNeeded(model.tools, look).every((tool) => tools.includes(tool)),
    );
  });
}

/** Belief in shorts above which the looks that hunt them are weighed. */
export const shortsWorth = 0.02;

export function shortsBelief(compiled: CompiledCircuit, belief: Belief): number {
  let sum = 0;
  compiled.variants.forEach(({ fault }, variant) => {
    if (fault.names.some(({ mode }) => mode === "to-ground" || mode === "to-feed"))
      sum += belief.variants[variant] as number;
  });
  return sum;
}
