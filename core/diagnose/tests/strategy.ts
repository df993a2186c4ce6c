import type { PartKind } from "../../circuit/parts/index";
import { observationOf } from "../../predict/observations/index";
import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";

/** Where practitioners begin: by the calculation alone, or at a favourite part first. */
export const strategies = ["least-time", "supply-first", "motor-first", "resistor-first"] as const;
export type Strategy = (typeof strategies)[number];

const firstKinds: Readonly<Record<Strategy, readonly PartKind[]>> = {
  "least-time": [],
  "supply-first": ["fuse", "relay"],
  "motor-first": ["motor"],
  "resistor-first": ["resistor"],
};

/** Number of tests of the favourite part before the strategy follows the calculation like the others. */
const openingLooks = 3;

function kindAt(compiled: CompiledCircuit, item: string): PartKind | undefined {
  const { circuit, points } = compiled.netlist;
  const owner = points.ownerOf.get(item) ?? item;
  const connector = circuit.connectors.find(({ id }) => id === owner);
  const terminal = connector ? (connector.pins[item.slice(owner.length + 1)] ?? "") : `${owner}.`;
  return circuit.parts.find(({ id }) => terminal.startsWith(`${id}.`))?.kind;
}

function touches(compiled: CompiledCircuit, test: Test, kinds: readonly PartKind[]): boolean {
  return observationOf(test.test)
    .reaches(test, compiled)
    .some((item) => {
      const kind = kindAt(compiled, item);
      return kind !== undefined && kinds.includes(kind);
    });
}

/** True for a test a strategy would take before following the calculation. */
export function strategyPrefers(
  compiled: CompiledCircuit,
  strategy: Strategy,
  test: Test,
  readings: readonly Reading[],
): boolean {
  const kinds = firstKinds[strategy];
  if (kinds.length === 0 || !touches(compiled, test, kinds)) return false;
  const taken = readings.filter((reading) => !reading.heard && touches(compiled, reading, kinds));
  return taken.length < openingLooks;
}
