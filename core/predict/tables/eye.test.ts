import { describe, expect, test } from "@jest/globals";
import { lampOdds } from "./eye";

const eyes = { brightVolts: 9, dimVolts: 3 };
const odds = (volts: number, buzzing = false, own = eyes): number[] => {
  const out = new Float64Array(4);
  lampOdds(volts, own, buzzing, out, 0);
  return [...out];
};

// How an eye judges a lamp at a voltage: common practice, no source.
describe("how an eye judges a lamp", () => {
  test.each([
    [12, 0],
    [6, 1],
    [0.5, 2],
    [0, 2],
  ])("at %p V the likeliest outcome is %p of bright, dim, dark", (volts, best) => {
    expect(odds(volts).indexOf(Math.max(...odds(volts)))).toBe(best);
  });

  test("the odds sum to 1 at every voltage, and none is negative", () => {
    for (let volts = -15; volts <= 15; volts += 0.1)
      for (const buzzing of [false, true]) {
        const own = odds(volts, buzzing);
        expect(own.reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 4);
        expect(Math.min(...own)).toBeGreaterThanOrEqual(0);
      }
  });

  test("brighter as the volts rise, without a step where the short cut begins", () => {
    let last = odds(0)[0] ?? 0;
    for (let volts = 0; volts <= 15; volts += 0.01) {
      const [bright = 0] = odds(volts);
      expect(bright).toBeGreaterThanOrEqual(last - 1e-9);
      expect(bright - last).toBeLessThan(0.01);
      last = bright;
    }
  });

  test("a chattering relay makes it flicker, and a steady one hardly ever", () => {
    expect(odds(8, true)[3]).toBeGreaterThan(0.8);
    expect(odds(12)[3]).toBeLessThan(0.02);
  });

  test("another person draws the line elsewhere", () => {
    expect(odds(8, false, { brightVolts: 7, dimVolts: 3 })[0]).toBeGreaterThan(0.9);
    expect(odds(8, false, { brightVolts: 9.5, dimVolts: 3 })[0]).toBeLessThan(0.1);
  });

  test("fills its own places and nothing beside them", () => {
    const out = new Float64Array(12).fill(7);
    lampOdds(12, eyes, false, out, 4);
    expect([...out.slice(0, 4), ...out.slice(8)]).toEqual(Array(8).fill(7));
    expect(out.slice(4, 8).reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 6);
  });
});
