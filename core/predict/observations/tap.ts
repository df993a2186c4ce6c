import { z } from "zod";
import { setupKeys, thingId } from "../setupKeys";
import { oddsBySuspect } from "../suspectOdds";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { wordTest } from "./observation";

export const tapSeen = ["starts", "changes", "nothing"] as const;
const tapReading = z.strictObject({
  test: z.literal("tap"),
  ...setupKeys,
  at: thingId,
  seen: z.enum(tapSeen),
});

/** Starts, changes, nothing (common practice, no source). */
const soundOdds = [0.01, 0.03, 0.96];
const looseOdds = [0.35, 0.35, 0.3];
const openOdds = [0.1, 0.05, 0.85];
const deadSpotOdds = [0.75, 0.08, 0.17];
const brushOdds = [0.1, 0.25, 0.65];

function oddsFor(compiled: CompiledCircuit, variant: number, at: string): readonly number[] {
  const { names = [], parts = [] } = compiled.variants[variant]?.fault ?? {};
  for (const [index, { mode }] of names.entries()) {
    if (parts[index] !== at) continue;
    if (mode === "loose") return looseOdds;
    if (mode === "dead-spot") return deadSpotOdds;
    if (mode === "worn-brushes") return brushOdds;
    if (mode === "open" || mode === "high") return openOdds;
  }
  return soundOdds;
}

const knockOdds = oddsBySuspect(oddsFor);
/** If a sound vehicle would not be running either, tapping tells nothing. */
const stillOdds = oddsBySuspect(() => soundOdds);

/** Tapping a motor's case, or wiggling a plug or relay, in a set-up in which a sound vehicle runs. */
export const tapTest = wordTest(tapReading, ["seen"], {
  minutes: 0.6,
  tools: [],
  form: {
    pick: { kind: "thing", keys: ["at"] },
    setup: "live",
    targets: { motor: 3, relay: 2, fuse: 3, other: 2 },
  },
  outcomes: tapSeen,
  problems: (compiled, { at }) => {
    const { parts, connectors, wires } = compiled.netlist.circuit;
    const known = [...parts, ...connectors, ...wires].some(({ id }) => id === at);
    return known
      ? []
      : [{ code: "no-such-thing", path: "at", message: `nothing called ${JSON.stringify(at)} to tap` }];
  },
  reaches: ({ at }) => [at],
  candidates: (compiled) => {
    const { circuit, motors } = compiled.netlist;
    const things = [
      ...motors.map(({ part }) => part.id),
      ...circuit.connectors.map(({ id }) => id),
      ...circuit.parts.filter(({ kind }) => kind === "relay" || kind === "inline").map(({ id }) => id),
    ];
    const [low] = compiled.runningSetups();
    return low ? things.map((at) => ({ test: "tap" as const, at, ...low })) : [];
  },
  odds: (compiled, test) => {
    const table = compiled.table(test);
    const runs = compiled.netlist.motors.some((_, motor) => table.speedAt(0, 0, motor) > 0);
    return runs ? knockOdds(compiled, test.at) : stillOdds(compiled, test.at);
  },
  seen: ({ seen }) => seen,
  simulate: (vehicle, { at }) => ({ seen: vehicle.tap(at) }),
  slip: ({ chance }) => ({ seen: chance.pick(["changes", "nothing"]) }),
});
