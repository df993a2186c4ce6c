// The odds of a motor's feel and noise are judgements (common practice, no source). These tests check their arithmetic
// and the order a practitioner would give.
import { describe, expect, test } from "@jest/globals";
import {
  healthyNoise,
  healthySpin,
  mechanicalModes,
  type NoiseOdds,
  noises,
  spinFeels,
  windingNoise,
  windingSpin,
} from "./mechanicalMode";

const total = (odds: readonly number[]): number => odds.reduce((sum, p) => sum + p, 0);
const loudest = (odds: NoiseOdds = healthyNoise): string =>
  noises.reduce((best, noise) => (odds[noise] > odds[best] ? noise : best));

describe("every table of odds", () => {
  const spins = [
    healthySpin,
    ...Object.values(windingSpin),
    ...Object.values(mechanicalModes).map((m) => m.spin),
  ];
  const heard = [
    healthyNoise,
    ...Object.values(windingNoise),
    ...Object.values(mechanicalModes).map((m) => m.noise),
  ];

  test("sums to 1 and rules nothing out", () => {
    for (const spin of spins) {
      expect(total(spinFeels.map((feel) => spin[feel]))).toBeCloseTo(1, 9);
      expect(Math.min(...Object.values(spin))).toBeGreaterThan(0);
    }
    for (const noise of heard) {
      expect(total(Object.values(noise))).toBeCloseTo(1, 9);
      expect(Math.min(...Object.values(noise))).toBeGreaterThan(0);
    }
  });

  test("puts what a practitioner would say first", () => {
    expect(loudest(healthyNoise)).toBe("quiet");
    expect(loudest(mechanicalModes["bearing-dry"]?.noise)).toBe("squeal");
    expect(loudest(mechanicalModes["bearing-worn"]?.noise)).toBe("rumble");
    expect(loudest(mechanicalModes.unbalanced?.noise)).toBe("rumble");
    expect(loudest(mechanicalModes.scrape?.noise)).toBe("scrape");
    expect(loudest(mechanicalModes.debris?.noise)).toBe("tick");
    expect(windingSpin.seized?.seized).toBeGreaterThan(0.8);
    expect(windingSpin.tight?.stiff).toBeGreaterThan(windingSpin.tight?.free ?? 1);
    expect(healthySpin.free).toBeGreaterThan(0.9);
  });

  test("only a wheel loose on its shaft stops the air while the motor turns", () => {
    for (const [mode, { airflowTimes, dragShare, fanTimes }] of Object.entries(mechanicalModes)) {
      expect(airflowTimes < 0.5).toBe(mode === "wheel-loose");
      expect(dragShare).toBeGreaterThanOrEqual(0);
      expect(fanTimes).toBeLessThanOrEqual(1);
    }
  });
});
