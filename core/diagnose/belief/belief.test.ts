import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { unknownShare } from "../../fault/prior";
import type { Reading } from "../../predict/reading";
import { heard, repairIn, shippedEngine } from "../../testing/shippedCircuit";
import { light } from "../../testing/takenReadings";
import { believe, partBelief, repairBelief } from "./belief";
import { scoreReading } from "./readingScore";

const engine = shippedEngine("whimbrel-four-speed");

const readings: Reading[] = [
  ...heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
  light("X5:4", "G1.-", "2", "bright"),
  light("X5:2", "G1.+", "2", "bright"),
  { test: "volts", red: "X5:4", black: "G1.-", key: "run", setting: "3", volts: 12.4 },
  { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
];

describe("belief", () => {
  test("equals brute-force enumeration over every fault and sampled vehicle", () => {
    // Bayes by hand, in plain numbers: prior × mean over vehicles of the product of slip-mixed odds.
    const draws = engine.samples.length;
    const scores = readings.map((reading) => scoreReading(engine, reading));
    const weights = engine.variants.map(({ prior }, variant) => {
      let sum = 0;
      for (let draw = 0; draw < draws; draw++) {
        let product = 1;
        readings.forEach((reading, i) => {
          const [once, again] = reading.heard ? [0.03, 0.02] : [0.012, 0.008];
          const blind = scores[i]?.blind ?? 0;
          const own = scores[i]?.odds[variant * draws + draw] ?? 0;
          product *= (1 - again) * ((1 - once) * own + once * blind) + again * blind;
        });
        sum += product;
      }
      return (prior * sum) / draws;
    });
    // A cause outside the list leaves seven tenths of the car as the catalogue does, and makes anything of the rest.
    const whole = engine.variants.reduce((sum, { prior }) => sum + prior, 0);
    const unknown = scores.reduce((product, { odds, blind }) => {
      const listed = engine.variants.reduce(
        (sum, { prior }, variant) =>
          sum + prior * odds.subarray(variant * draws, (variant + 1) * draws).reduce((a, b) => a + b, 0),
        0,
      );
      return product * (0.7 * (listed / draws / whole) + 0.3 * blind);
    }, unknownShare);
    const total = weights.reduce((sum, weight) => sum + weight, unknown);
    const belief = believe(engine, readings);
    expect(belief.unknown).toBeCloseTo(unknown / total, 12);
    for (const [variant, weight] of weights.entries())
      expect(belief.variants[variant]).toBeCloseTo(weight / total, 12);
  });

  test("sums to 1 and does not depend on the order of the readings", () => {
    const before = believe(engine, readings);
    expect(before.variants.reduce((sum, p) => sum + p, before.unknown)).toBeCloseTo(1, 12);
    fc.assert(
      fc.property(fc.shuffledSubarray(readings, { minLength: readings.length }), (shuffled) => {
        const after = believe(engine, shuffled);
        for (const [variant, p] of after.variants.entries())
          expect(p).toBeCloseTo(before.variants[variant] ?? -1, 10);
      }),
      { numRuns: 20, seed: 5 },
    );
  });

  test("deleting a reading and restoring it gives the same belief exactly", () => {
    const before = believe(engine, readings);
    believe(engine, readings.slice(0, -1));
    expect(believe(engine, readings).variants).toEqual(before.variants);
  });

  test("repeating one reading many times does not prove what one reading cannot", () => {
    const one = light("X3:1", "G1.-", "4", "dim");
    const once = repairBelief(engine, believe(engine, [one]));
    const often = repairBelief(
      engine,
      believe(
        engine,
        Array.from({ length: 12 }, () => one),
      ),
    );
    const best = partBelief(once)[0];
    const after = partBelief(often)[0];
    expect(best?.p).toBeLessThan(0.9);
    expect(after?.p).toBeLessThan(0.95);
  });

  test("one slip does not rule out the truth for good", () => {
    const truth = readings;
    const slipped = [...truth, light("X5:3", "G1.+", "3", "dark")];
    const p = (list: Reading[]): number =>
      repairBelief(engine, believe(engine, list)).get(repairIn(engine, "R1")) ?? 0;
    expect(p(truth)).toBeGreaterThan(0.8);
    expect(p(slipped)).toBeGreaterThan(0.1);
    expect(
      p([...slipped, light("X5:3", "G1.-", "3", "dark"), light("X5:1", "G1.-", "1", "dark")]),
    ).toBeGreaterThan(0.5);
  });

  test("the unknown grows if nothing explains the readings", () => {
    const absurd: Reading[] = ["1", "2", "3", "4"].map((setting, i) =>
      light("F1.in", "G1.-", setting, i % 2 === 0 ? "dark" : "bright"),
    );
    absurd.push({ test: "volts", red: "G1.+", black: "G1.-", key: "run", setting: "1", volts: 31 });
    absurd.push({ test: "volts", red: "F1.out", black: "G1.-", key: "run", setting: "1", volts: -8 });
    expect(believe(engine, absurd).unknown).toBeGreaterThan(0.5);
  });
});

describe("belief over every test", () => {
  const pwm = shippedEngine("whimbrel-pwm-low");
  const live = { key: "run", setting: "4" } as const;
  const all: Reading[] = [
    ...heard({ "1": "weak", "4": "none", "7": "none" }),
    { test: "amps", around: "M1", ...live, amps: 0.2 },
    { test: "listen", ...live, seen: "quiet" },
    { test: "smell", ...live, seen: "burnt" },
    { test: "history", of: "damp", seen: "yes" },
    { test: "tap", at: "X4", ...live, seen: "changes" },
    { test: "lampload", lampFor: "M1", ...live, seen: "dark" },
    { test: "volts", red: "X4:3", black: "X4:2", ...live, volts: 3.1 },
    { test: "light", probe: "X4:1", clip: "G1.-", ...live, seen: "bright" },
    { test: "look", at: "A1", seen: "wet" },
    { test: "ripple", at: "M1", ...live, seen: "missing" },
    { test: "spin", at: "M1", seen: "free" },
  ];

  test("sums to 1 in any order, and deleting and restoring gives the same belief exactly", () => {
    const before = believe(pwm, all);
    expect(before.variants.reduce((sum, p) => sum + p, before.unknown)).toBeCloseTo(1, 10);
    fc.assert(
      fc.property(
        fc.shuffledSubarray(all, { minLength: all.length }),
        fc.nat({ max: all.length - 1 }),
        (shuffled, out) => {
          const after = believe(pwm, shuffled);
          for (const [variant, p] of after.variants.entries())
            expect(p).toBeCloseTo(before.variants[variant] ?? -1, 9);
          believe(
            pwm,
            all.filter((_, index) => index !== out),
          );
          expect(believe(pwm, all).variants).toEqual(before.variants);
        },
      ),
      { numRuns: 15, seed: 9 },
    );
  });

  test("a wet module without output, with good feed, ground and command, is the module", () => {
    const [first] = [...repairBelief(pwm, believe(pwm, all))].sort((a, b) => b[1] - a[1]);
    expect(first?.[0]).toEqual({ parts: ["A1"] });
  });

  test("a noise that follows the speed points to the motor more than one that does not", () => {
    const noise = (followsSpeed: boolean): number =>
      repairBelief(
        engine,
        believe(engine, [{ test: "listen", key: "run", setting: "4", seen: "rumble", followsSpeed }]),
      ).get(repairIn(engine, "M1")) ?? 0;
    expect(noise(true)).toBeGreaterThan(noise(false));
  });

  test("a reading that came and went is evidence for a loose contact, not a contradiction", () => {
    const at = (seen: "bright" | "dark", setting: string): Reading => light("X3:1", "G1.-", setting, seen);
    const readings = [
      at("bright", "4"),
      at("dark", "3"),
      at("bright", "2"),
      at("dark", "1"),
      at("bright", "3"),
    ];
    const belief = believe(engine, readings);
    const loose = engine.variants.reduce(
      (sum, { fault }, variant) =>
        sum + (fault.names.some(({ mode }) => mode === "loose") ? (belief.variants[variant] ?? 0) : 0),
      0,
    );
    // Most of the rest is a cause outside the list, which may do anything.
    expect(loose).toBeGreaterThan(0.65);
    expect(loose + belief.unknown).toBeGreaterThan(0.9);
  });
});
