import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../chance/randomSource";
import { spreadOf, stepMinutes } from "./stepMinutes";

describe("the minutes of one step", () => {
  test("have the given mean, and one in ten is slower than stated, by sampling", () => {
    const { mean, variance } = stepMinutes({ minutes: 6, slowMinutes: 10 });
    expect(mean).toBe(6);
    // Sampled with the closed form's sigma; the ninth decile must equal the one given.
    const sigma = Math.sqrt(Math.log(1 + variance / 36));
    const { normal } = randomSource(3);
    const drawn = Array.from({ length: 40_000 }, () => 6 * Math.exp(sigma * normal() - (sigma * sigma) / 2));
    expect(drawn.reduce((sum, own) => sum + own, 0) / drawn.length).toBeCloseTo(6, 0);
    expect(drawn.filter((own) => own > 10).length / drawn.length).toBeCloseTo(0.1, 2);
  });

  test("do not scatter if they are certain, and have a default scatter if none is given", () => {
    expect(stepMinutes({ minutes: 4, slowMinutes: 4 }).variance).toBe(0);
    expect(stepMinutes({ minutes: 0 })).toEqual({ mean: 0, variance: 0 });
    expect(stepMinutes({ minutes: 4 }).variance).toBeGreaterThan(1);
    expect(stepMinutes({ minutes: 4, slowMinutes: 400 }).variance).toBeLessThan(100);
  });
});

test("the stated range holds eight in ten of many steps done in sequence", () => {
  const steps = [
    { minutes: 3, slowMinutes: 5 },
    { minutes: 0.5 },
    { minutes: 8, slowMinutes: 15 },
    { minutes: 2, slowMinutes: 2.5 },
  ].map(stepMinutes);
  const { mean, low, high } = spreadOf(steps);
  expect(mean).toBe(13.5);
  const { normal } = randomSource(8);
  const one = ({ mean: own, variance }: (typeof steps)[number]): number => {
    const sigma = Math.sqrt(Math.log(1 + variance / (own * own)));
    return own * Math.exp(sigma * normal() - (sigma * sigma) / 2);
  };
  const drawn = Array.from({ length: 20_000 }, () => steps.reduce((sum, step) => sum + one(step), 0));
  expect(drawn.filter((sum) => sum < low).length / drawn.length).toBeCloseTo(0.1, 1);
  expect(drawn.filter((sum) => sum > high).length / drawn.length).toBeCloseTo(0.1, 1);
  expect(spreadOf([])).toEqual({ mean: 0, low: 0, high: 0 });
});
