import { z } from "zod";
import { theCar } from "../../fault/repair";
import {
  healthyNoise,
  mechanicalModes,
  type Noise,
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
/** What somebody who misheard reports: usually nothing, seldom any one noise. */
const mistakenNoise = noiseOdds({ quiet: 0.6, squeal: 0.1, rumble: 0.1, tick: 0.08 });
const blockedNoise = noiseOdds({ quiet: 0.8, whistle: 0.11 });

/** A vehicle keeps to one of the noises its fault can make. This is how often it is heard as that one (judgement). */
const sameNoise = 0.8;
/** How often a finger over the vent hole silences a motor that whistles (judgement, no source). */
const silencedShare = 0.9;
const quiet = noises.indexOf("quiet");
const whistles = noises.indexOf("whistle");

/** The noise at a quantile of the odds, in the order of `noises`. */
function noiseAt(odds: NoiseOdds, quantile: number): Noise {
  let sum = 0;
  for (const noise of noises) {
    sum += odds[noise];
    if (quantile < sum) return noise;
  }
  return "quiet";
}

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
  blind: (seen) => mistakenNoise[seen as Noise],
  odds: (compiled, test) => {
    const table = compiled.table(test);
    const motors = compiled.netlist.motors.length;
    const own = noiseBySuspect(compiled);
    let of = healthyNoise;
    let fromMotor = false;
    const byRow = mixRows(
      compiled,
      (row, sample, out) => {
        let runs = false;
        for (let motor = 0; motor < motors; motor++) {
          const level = table.speedAt(row, sample, motor) / Math.max(1e-6, compiled.topSpeed[motor] ?? 0);
          if (level > audibleShare) runs = true;
        }
        const possible = table.buzzes(row, sample) ? buzzNoise : runs ? of : stillNoise;
        const made = noiseAt(possible, compiled.samples[sample]?.noise ?? 0.5);
        for (const [i, noise] of noises.entries())
          out[i] = (1 - sameNoise) * possible[noise] + (noise === made ? sameNoise : 0);
        if (!test.ventCovered || !fromMotor) return;
        const silenced = silencedShare * (out[whistles] as number);
        out[quiet] = (out[quiet] as number) + silenced;
        out[whistles] = (out[whistles] as number) - silenced;
      },
      noises.length,
    );
    return (variant, sample, out) => {
      of = own[variant] ?? healthyNoise;
      fromMotor = comesFromMotor(compiled, variant);
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
