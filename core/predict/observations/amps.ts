import { z } from "zod";
import { setupKeys, thingId } from "../setupKeys";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { numberTest } from "./observation";

const ampsReading = z.strictObject({
  test: z.literal("amps"),
  ...setupKeys,
  around: thingId,
  amps: z.number().min(-10_000).max(10_000),
});

/** The clamp's own 3 % + 0.3 A, widened for what the sampled vehicles do not cover (judgement). */
const clampShare = 0.04;
const clampAmps = 0.4;

/** Log standard deviation of what blowers draw, from maker to maker (judgement). */
const guessedParts = 0.2;

const windowAmps = 0.6;
const rangeAmps = 30;

function isClampable(compiled: CompiledCircuit, around: string): boolean {
  const { circuit, motors } = compiled.netlist;
  return circuit.wires.some(({ id }) => id === around) || motors.some(({ part }) => part.id === around);
}

/** Amps through a wire or a motor, by a clamp. */
export const ampsTest = numberTest(ampsReading, {
  figure: "amps",
  minutes: 1,
  tools: ["clamp"],
  form: {
    pick: { kind: "thing", keys: ["around"] },
    setup: "live",
    targets: { wire: 1, motor: 5 },
  },
  problems: (compiled, { around }) =>
    isClampable(compiled, around)
      ? []
      : [{ code: "no-such-thing", path: "around", message: `no wire or motor ${JSON.stringify(around)}` }],
  reaches: ({ around }) => [around],
  candidates: (compiled) =>
    compiled.netlist.motors.flatMap(({ part }) =>
      compiled.runningSetups().map((setup) => ({ test: "amps" as const, around: part.id, ...setup })),
    ),
  value: (compiled, test) => {
    const table = compiled.table(test);
    const branch = compiled.netlist.branchOf.get(test.around) ?? 0;
    return (row, sample) => table.ampsAt(row, sample, branch);
  },
  sigma: (amps) => clampAmps + clampShare * Math.abs(amps),
  guessedSigma: (amps) => guessedParts * Math.abs(amps),
  window: windowAmps,
  blind: (amps) => (Math.abs(amps) < 1 ? 0.3 / 3 : 0.7 * (windowAmps / rangeAmps)),
  scale: (amps) => amps,
  seen: ({ amps }) => amps,
  simulate: (vehicle, test) => {
    const shown = vehicle.shownAmps(vehicle.ampsThrough(test, test.around));
    return { amps: Math.round(shown * 10) / 10 };
  },
  slip: ({ chance }) => ({ amps: chance.between(0, 25) }),
});
