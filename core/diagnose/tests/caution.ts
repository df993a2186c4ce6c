import type { PartKind } from "../../circuit/parts/index";
import { observationOf } from "../../predict/observations/index";
import type { Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { placesNeeded } from "./access";

/** What can hurt someone taking a test. */
export const cautions = [
  "runs-on",
  "wheel",
  "airbag",
  "hot-pack",
  "fused-lead",
  "load-lamp",
  "swap",
] as const;
export type Caution = (typeof cautions)[number];

/** Kinds of part in the cabin, behind panels where airbag plugs also are. */
const behindThePanels: ReadonlySet<PartKind> = new Set(["motor", "resistor", "module", "head", "selector"]);
/** Kinds of part that get hot enough to burn. */
const hot: ReadonlySet<PartKind> = new Set(["resistor", "module"]);

/** The part a point, plug or wire belongs to; a part's id is returned unchanged. */
function partKindsAt({ netlist: { circuit, points } }: CompiledCircuit, item: string): PartKind[] {
  const owner = points.ownerOf.get(item) ?? item;
  const kindOf = (id: string): PartKind[] =>
    circuit.parts.flatMap((part) => (part.id === id ? [part.kind] : []));
  const connector = circuit.connectors.find(({ id }) => id === owner);
  if (!connector) return kindOf(owner);
  return Object.values(connector.pins).flatMap((terminal) =>
    kindOf(terminal.slice(0, terminal.indexOf("."))),
  );
}

/**
 * The cautions of a test, shown where the test is. The dangers are those of the trade (common practice, no source);
 * the maker's procedure and local rules come first.
 * @param runsOn true if the blower cannot be switched off
 */
export function cautionsOf(compiled: CompiledCircuit, test: Test, runsOn = false): Caution[] {
  const { circuit } = compiled.netlist;
  const touched = [
    ...observationOf(test.test).reaches(test, compiled),
    ...(test.unplugged ?? []),
    ...(test.bridged ?? []).flat(),
    ...(test.lampFor ? [test.lampFor] : []),
  ];
  const places = new Set(placesNeeded(compiled, test));
  const kindsAround = circuit.places
    .filter(({ id }) => places.has(id))
    .flatMap(({ parts }) => circuit.parts.filter(({ id }) => parts.includes(id)).map(({ kind }) => kind));
  const kindsTouched = touched.flatMap((item) => partKindsAt(compiled, item));
  const nearWheel =
    [...kindsAround, ...kindsTouched].includes("motor") || observationOf(test.test).touchesWheel === true;
  const applies: Readonly<Record<Caution, boolean>> = {
    "runs-on": runsOn && nearWheel,
    wheel: !runsOn && nearWheel,
    airbag: kindsAround.some((kind) => behindThePanels.has(kind)),
    "hot-pack": kindsTouched.some((kind) => hot.has(kind)),
    "fused-lead": (test.bridged ?? []).length > 0 || test.lampFor !== undefined,
    "load-lamp": test.lampFor !== undefined,
    swap: test.test === "swap",
  };
  return cautions.filter((caution) => applies[caution]);
}
