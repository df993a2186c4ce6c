import { z } from "zod";
import { plugsOf } from "../../circuit/plugs";
import { theCar } from "../../fault/repair";
import { setupKeys, thingId } from "../setupKeys";
import { oddsBySuspect } from "../suspectOdds";
import type { CompiledCircuit, Variant } from "../tables/compiledCircuit";
import { wordTest } from "./observation";

export const inspectSeen = ["clean", "corroded", "melted", "wet", "debris", "blown"] as const;
const inspectReading = z.strictObject({
  test: z.literal("look"),
  ...setupKeys,
  at: thingId,
  seen: z.enum(inspectSeen),
});

type InspectOdds = readonly [
  clean: number,
  corroded: number,
  melted: number,
  wet: number,
  debris: number,
  blown: number,
];

/** What an inspection finds on a sound thing (common practice, no source). */
const soundOdds: InspectOdds = [0.934, 0.03, 0.009, 0.015, 0.01, 0.002];
/** Next to a part or plug that burnt, and next to a control, which water or heat killed (common practice, no source). */
const besideHeat: InspectOdds = [0.67, 0.03, 0.27, 0.015, 0.01, 0.005];
const besideControl: InspectOdds = [0.62, 0.1, 0.12, 0.14, 0.015, 0.005];
/** What a careless inspection, or one of the wrong thing, reports: usually nothing, seldom damage that is not there. */
const carelessOdds: Readonly<Record<string, number>> = {
  clean: 0.9,
  corroded: 0.03,
  melted: 0.02,
  wet: 0.02,
  debris: 0.02,
  blown: 0.01,
};
/** What an inspection finds on a failed thing (common practice, no source). */
const failedOdds: Readonly<Record<string, InspectOdds>> = {
  "pin high": [0.25, 0.22, 0.5, 0.02, 0.005, 0.005],
  "pin open": [0.45, 0.2, 0.32, 0.02, 0.005, 0.005],
  "pin loose": [0.7, 0.15, 0.13, 0.01, 0.005, 0.005],
  "resistor open": [0.6, 0.06, 0.3, 0.01, 0.02, 0.01],
  "fuse blown": [0.04, 0.005, 0.02, 0.005, 0.005, 0.925],
  "fuse high": [0.5, 0.12, 0.35, 0.015, 0.01, 0.005],
  "ground high": [0.35, 0.6, 0.01, 0.03, 0.005, 0.005],
  "ground open": [0.4, 0.5, 0.01, 0.05, 0.035, 0.005],
  "relay high": [0.7, 0.12, 0.16, 0.01, 0.005, 0.005],
  "module dead": [0.55, 0.08, 0.14, 0.2, 0.02, 0.01],
  "module full-on": [0.6, 0.08, 0.12, 0.17, 0.02, 0.01],
  "module stuck": [0.62, 0.08, 0.1, 0.17, 0.02, 0.01],
  "module thermal": [0.75, 0.05, 0.12, 0.05, 0.02, 0.01],
  "motor debris": [0.4, 0.02, 0.01, 0.03, 0.535, 0.005],
  [`${theCar} filter-blocked`]: [0.06, 0.01, 0.005, 0.02, 0.9, 0.005],
};

function failure(compiled: CompiledCircuit, variant: Variant, at: string): InspectOdds | null {
  const name = variant.fault.names.find((_, index) => variant.fault.parts[index] === at);
  if (!name) return null;
  if (at === theCar) return failedOdds[`${theCar} ${name.mode}`] ?? null;
  return failedOdds[`${kindAt(compiled, at)} ${name.mode}`] ?? null;
}

/** The kind of a thing in the tables: a part's own, `pin` for a plug of any sort. */
function kindAt(compiled: CompiledCircuit, at: string): string {
  const part = compiled.netlist.circuit.parts.find(({ id }) => id === at);
  return part === undefined || part.kind === "inline" ? "pin" : part.kind;
}

/** Modes whose heat reaches the neighbour, and those of a control, whose water may as well. */
const burns = new Set([
  "pin high",
  "pin open",
  "resistor open",
  "resistor high",
  "selector open",
  "selector high",
  "relay high",
]);
const controls = new Set(["module dead", "module full-on", "module stuck"]);

/** What a sound thing shows beside a failed one: heat and water travel along the plug. */
function neighbour(compiled: CompiledCircuit, { fault }: Variant, at: string): InspectOdds | null {
  const { circuit } = compiled.netlist;
  for (const [index, { mode }] of fault.names.entries()) {
    const failed = fault.parts[index] ?? fault.parts[0] ?? "";
    if (!plugsOf(circuit, failed).includes(at) && !plugsOf(circuit, at).includes(failed)) continue;
    const signs = `${kindAt(compiled, failed)} ${mode}`;
    if (burns.has(signs)) return besideHeat;
    if (controls.has(signs)) return besideControl;
  }
  return null;
}

const eyeOdds = oddsBySuspect((compiled, variant, at): InspectOdds => {
  const own = compiled.variants[variant];
  return (own && (failure(compiled, own, at) ?? neighbour(compiled, own, at))) ?? soundOdds;
});

/** Inspecting a part or plug: a failed one often shows it, a sound one seldom shows anything. */
export const inspectTest = wordTest(inspectReading, ["seen"], {
  minutes: 0.4,
  tools: [],
  form: {
    pick: { kind: "thing", keys: ["at"] },
    setup: "none",
    targets: { motor: 6, relay: 3, fuse: 1, other: 1 },
  },
  outcomes: inspectSeen,
  problems: (compiled, { at }) =>
    isVisible(compiled, at)
      ? []
      : [{ code: "no-such-thing", path: "at", message: `no part or connector ${JSON.stringify(at)}` }],
  reaches: ({ at }) => [at],
  candidates: (compiled) => {
    const { circuit } = compiled.netlist;
    const parts = circuit.parts.filter(({ kind }) =>
      ["resistor", "fuse", "ground", "relay", "motor", "module", "inline"].includes(kind),
    );
    return [...parts, ...circuit.connectors].map(({ id }) => ({ test: "look" as const, at: id }));
  },
  odds: (compiled, { at }) => eyeOdds(compiled, at),
  blind: (seen) => carelessOdds[seen] ?? 0,
  seen: ({ seen }) => seen,
  simulate: (vehicle, { at }) => ({ seen: z.enum(inspectSeen).parse(vehicle.eyes(at)) }),
  slip: ({ chance }) => ({ seen: chance.pick(["clean", "corroded", "melted", "wet"]) }),
});

function isVisible(compiled: CompiledCircuit, at: string): boolean {
  const { parts, connectors } = compiled.netlist.circuit;
  return parts.some(({ id }) => id === at) || connectors.some(({ id }) => id === at);
}
