import { z } from "zod";
import { theCar } from "../../fault/repair";
import {
  healthyNoise,
  mechanicalModes,
  type NoiseOdds,
  noiseOdds,
  noises,
  windingNoise,
} from "../../motor/mechanicalMode";
import { setupKeys } from "../setupKeys";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { perCircuit } from "../tables/perCircuit";
import { mixRows, wordTest } from "./observation";

const listenReading = z.strictObject({
  test: z.literal("listen"),
  ...setupKeys,
  ventCovered: z.boolean().optional(),
  seen: z.enum(noises),
  followsSpeed: z.boolean().optional(),
});

/** A motor slower than this share of its top speed makes no noise of its own. */
const audibleShare = 0.08;
const stillNoise = noiseOdds({ quiet: 0.965 });
/** A chattering relay buzzes or ticks. */
const buzzNoise = noiseOdds({ quiet: 0.3, buzz: 0.35, tick: 0.25 });
const blockedNoise = noiseOdds({ quiet: 0.8, whistle: 0.11 });

/** Probability that a noise rises with the speed: nearly certain from the motor, otherwise even. */
const followsFromMotor = 0.92;
const followsElse = 0.5;
/** Share of noises that are reported to follow the speed (judgement, no source). */
const followsHeard = 0.85;

function ownNoise(compiled: CompiledCircuit, variant: number): NoiseOdds {
  const names = compiled.variants[variant]?.fault.names ?? [];
  for (const { mode, where } of names) {
    if (where === theCar) return blockedNoise;
    const noise = mechanicalModes[mode]?.noise ?? windingNoise[mode];
    if (noise) return noise;
  }
  return healthyNoise;
}

const comesFromMotor = (compiled: CompiledCircuit, variant: number): boolean =>
  (compiled.variants[variant]?.fault.names ?? []).some(
    ({ mode }) => mode in mechanicalModes || mode in windingNoise,
  );

const noiseBySuspect = perCircuit((compiled) =>
  compiled.variants.map((_, variant) => ownNoise(compiled, variant)),
);

/** What an ear hears of a running blower; a stopped one is quiet. */
export const listenTest = wordTest(listenReading, ["seen", "followsSpeed"], {
  minutes: 0.5,
  tools: [],
  form: { pick: { kind: "nothing", keys: [] }, setup: "live", targets: { motor: 2 } },
  outcomes: noises,
  problems: () => [],
  reaches: () => [],
  candidates: (compiled) => {
    const running = compiled.runningSetups();
    const top = running.at(-1);
    return top
      ? [
          { test: "listen", ...top },
          { test: "listen", ...top, ventCovered: true },
        ]
      : [];
  },
  odds: (compiled, test) => {
    const table = compiled.table(test);
    const motors = compiled.netlist.motors.length;
    const own = noiseBySuspect(compiled);
    let of = healthyNoise;
    const byRow = mixRows(
      compiled,
      (row, sample, out) => {
        let runs = false;
        for (let motor = 0; motor < motors; motor++) {
          const level = table.speedAt(row, sample, motor) / Math.max(1e-6, compiled.topSpeed[motor] ?? 0);
          if (level > audibleShare) runs = true;
        }
        const heard = table.buzzes(row, sample) ? buzzNoise : runs ? of : stillNoise;
        const silenced = test.ventCovered ? 0.8 * heard.whistle : 0;
        for (const [i, noise] of noises.entries())
          out[i] = heard[noise] + (noise === "quiet" ? silenced : noise === "whistle" ? -silenced : 0);
      },
      noises.length,
    );
    return (variant, sample, out) => {
      of = own[variant] ?? healthyNoise;
      byRow(variant, sample, out);
    };
  },
  seen: ({ seen }) => seen,
  also: (compiled, { seen, followsSpeed }) =>
    followsSpeed === undefined || seen === "quiet"
      ? null
      : {
          odds: (variant) => {
            const follows = comesFromMotor(compiled, variant) ? followsFromMotor : followsElse;
            return followsSpeed ? follows : 1 - follows;
          },
          blind: 0.5,
        },
  simulate: (vehicle, test) => {
    const seen = vehicle.noise(test);
    if (seen === "quiet") return { seen };
    return { seen, followsSpeed: vehicle.chance.uniform() < followsHeard };
  },
});
