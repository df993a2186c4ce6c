import { z } from "zod";
import { setupKeys, thingId } from "../setupKeys";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { perCircuitAnd } from "../tables/perCircuit";
import { mixRows, wordTest } from "./observation";

export const rippleSeen = ["even", "uneven", "missing"] as const;
const rippleReading = z.strictObject({
  test: z.literal("ripple"),
  ...setupKeys,
  at: thingId,
  seen: z.enum(rippleSeen),
});

/** Amps below which a clamp and a scope show no ripples. */
const leastAmps = 0.8;
/** Even, uneven, missing (common practice, no source). */
const noCurrent = [0.03, 0.05, 0.92];
const standing = [0.1, 0.1, 0.8];
const healthy = [0.93, 0.055, 0.015];
const byMode: Readonly<Record<string, readonly number[]>> = {
  "worn-brushes": [0.12, 0.68, 0.2],
  "shorted-turns": [0.14, 0.72, 0.14],
  "dead-spot": [0.12, 0.3, 0.58],
  tight: [0.72, 0.24, 0.04],
  "bearing-worn": [0.8, 0.18, 0.02],
  debris: [0.8, 0.18, 0.02],
};

const ownOdds = (compiled: CompiledCircuit, variant: number, at: string): readonly number[] => {
  const name = compiled.variants[variant]?.fault.names.find(({ where }) => where === at);
  return (name && byMode[name.mode]) ?? healthy;
};

const oddsOfMotor = perCircuitAnd((compiled, at: string) =>
  compiled.variants.map((_, variant) => ownOdds(compiled, variant, at)),
);

/** The ripples of a motor's current, with a clamp on a scope. */
export const rippleTest = wordTest(rippleReading, ["seen"], {
  minutes: 2,
  tools: ["clamp", "scope"],
  form: { pick: { kind: "thing", keys: ["at"] }, setup: "live", targets: { motor: 7 } },
  outcomes: rippleSeen,
  problems: (compiled, { at }) =>
    compiled.netlist.motors.some(({ part }) => part.id === at)
      ? []
      : [{ code: "no-such-thing", path: "at", message: `no motor ${JSON.stringify(at)}` }],
  reaches: ({ at }) => [at],
  candidates: (compiled) =>
    compiled.brushedMotors().map((part) => ({
      test: "ripple" as const,
      at: part.id,
      ...compiled.runningSetups().at(-1),
    })),
  odds: (compiled, test) => {
    const table = compiled.table(test);
    const motor = compiled.netlist.motors.findIndex(({ part }) => part.id === test.at);
    const branch = compiled.netlist.branchOf.get(test.at) ?? 0;
    const rows = oddsOfMotor(compiled, test.at);
    let own: readonly number[] = healthy;
    const byRow = mixRows(
      compiled,
      (row, sample, out) => {
        const amps = Math.abs(table.ampsAt(row, sample, branch));
        const seen = amps < leastAmps ? noCurrent : table.speedAt(row, sample, motor) <= 0 ? standing : own;
        for (let i = 0; i < rippleSeen.length; i++) out[i] = seen[i] as number;
      },
      rippleSeen.length,
    );
    return (variant, sample, out) => {
      own = rows[variant] ?? healthy;
      byRow(variant, sample, out);
    };
  },
  seen: ({ seen }) => seen,
  simulate: (vehicle, test) => ({ seen: vehicle.ripple(test, test.at) }),
  slip: ({ chance }) => ({ seen: chance.pick(["even", "uneven", "missing"]) }),
});
