import { testModels } from "../../predict/observations/index";
import { type TestModel, type Tool, toolsNeeded } from "../../predict/observations/observation";
import { type Look, lookKey } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { type NominalColumn, nominalColumn } from "../../predict/tables/nominalColumn";
import type { Belief } from "../belief/belief";
import { type LookCost, lookCost } from "./access";

/** A look and the text that tells it from others. */
export interface Candidate {
  readonly look: Look;
  readonly key: string;
  readonly cost: LookCost;
  /** What every suspect would show there in the nominal vehicle. */
  readonly column: () => NominalColumn;
}

/** Every look the tools allow on this circuit, whatever has been seen; those that hunt a short if asked. */
export function candidateLooks(
  compiled: CompiledCircuit,
  tools: readonly Tool[],
  shorts = false,
): readonly Candidate[] {
  return compiled.remember(`candidates ${tools.join()} ${shorts}`, () =>
    shorts
      ? [
          ...candidateLooks(compiled, tools),
          ...made(compiled, tools, (model) => model.shortHunt?.(compiled) ?? []),
        ]
      : made(compiled, tools, (model) => model.candidates(compiled)),
  );
}

function made(
  compiled: CompiledCircuit,
  tools: readonly Tool[],
  looksOf: (model: TestModel) => readonly Look[],
): Candidate[] {
  return (Object.values(testModels) as TestModel[])
    .flatMap((model) =>
      looksOf(model).filter((look) => toolsNeeded(model.tools, look).every((tool) => tools.includes(tool))),
    )
    .map((look) => {
      let column: NominalColumn | undefined;
      return {
        look,
        key: lookKey(look),
        cost: lookCost(compiled, look),
        column: () => {
          column ??= nominalColumn(compiled, look);
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
