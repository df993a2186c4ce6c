import { describe, expect, test } from "@jest/globals";
import { notListed } from "../../fault/repair";
import { minutesMinor, type StoppingCosts } from "../../money/stoppingCosts";
import { repairIn, shippedEngine } from "../../testing/shippedCircuit";
import type { Forecast } from "../tests/forecast";
import { fitCostMinor, weighStopping } from "./stopping";

const engine = shippedEngine("whimbrel-four-speed");
const [pack, motor] = [repairIn(engine, "R1"), repairIn(engine, "M1")];

/** A shop with figures for sums by hand: 60 an hour, the pack costs 10 and no time, the motor 30. */
const costs: StoppingCosts = {
  hourMinor: 6000,
  comebackMinor: 10_000,
  settledBar: 0.95,
  repairs: { R1: { priceMinor: 1000, minutes: 0 }, M1: { priceMinor: 3000, minutes: 0 } },
};

/** A test that separates the pack from the motor with certainty. */
function look(minutes: number, entropy: number, outcomes: Forecast["outcomes"], bits = entropy): Forecast {
  return {
    look: { test: "spin", at: "M1" },
    bits,
    minutes,
    accessMinutes: 0,
    repairs: [notListed, pack, motor],
    entropy,
    outcomes,
  };
}
const parting = (p: number): Forecast["outcomes"] => [
  { seen: "free", value: null, range: null, p, repairs: [0, 1, 0] },
  { seen: "seized", value: null, range: null, p: 1 - p, repairs: [0, 0, 1] },
];

describe("repair now or test again, by hand", () => {
  test("minutes are money at the shop's hour", () => {
    expect(minutesMinor(30, costs)).toBe(3000);
    expect(minutesMinor(1, { ...costs, hourMinor: 9000 })).toBe(150);
  });

  test("the likeliest repair costs the part, and a comeback as often as it is wrong", () => {
    const { fitNowMinor } = weighStopping(
      engine,
      new Map([
        [pack, 0.8],
        [motor, 0.2],
      ]),
      [],
      costs,
    );
    // R1: 1000 + 0.2 × 10 000 = 3000; M1: 3000 + 0.8 × 10 000 = 11 000.
    expect(fitNowMinor).toBe(3000);
  });

  test("an expensive part that is slightly likelier gives way to a cheap one if a comeback costs almost nothing", () => {
    const cheap = { ...costs, comebackMinor: 100 };
    const { fitNowMinor } = weighStopping(
      engine,
      new Map([
        [motor, 0.55],
        [pack, 0.45],
      ]),
      [],
      cheap,
    );
    expect(fitNowMinor).toBe(1000 + 55);
  });

  test("a test that decides costs its minutes and then the right part", () => {
    const { testMoreMinor, bestLook, breakEven } = weighStopping(
      engine,
      new Map([
        [pack, 0.8],
        [motor, 0.2],
      ]),
      [look(5, 0.7219, parting(0.8))],
      costs,
    );
    // 5.8 min with handling at 100 a minute = 580, then 0.8 × 1000 + 0.2 × 3000 = 1400; the series asks the same
    // plus a hundredth of a comeback.
    expect(testMoreMinor).toBe(580 + 1400);
    expect(bestLook?.look.test).toBe("spin");
    // Replacing R1 costs 1000 + (1 − p) × 10 000: equal to 1980 at p = 0.902.
    expect(breakEven).toBeCloseTo(0.902, 9);
  });

  test("of two similar tests the more expensive one is not used, and a long one does not pay at all", () => {
    const repairs = new Map([
      [pack, 0.8],
      [motor, 0.2],
    ]);
    const cheap = look(2, 0.7219, parting(0.8));
    const { bestLook } = weighStopping(engine, repairs, [look(9, 0.7219, parting(0.8)), cheap], costs);
    expect(bestLook).toBe(cheap);
    const slow = weighStopping(engine, repairs, [look(60, 0.7219, parting(0.8))], costs);
    expect(slow.testMoreMinor ?? 0).toBeGreaterThan(slow.fitNowMinor);
  });

  test("without a test left there is nothing to compare", () => {
    const stopping = weighStopping(engine, new Map([[pack, 1]]), [], costs);
    expect(stopping).toMatchObject({ testMoreMinor: null, bestLook: null, breakEven: null });
  });

  test("tests that change nothing alone still pay as a series if a comeback is expensive", () => {
    // Neither outcome changes the choice of R1 at once, but three such tests would decide it.
    const small: Forecast["outcomes"] = [
      { seen: "free", value: null, range: null, p: 0.5, repairs: [0, 0.9, 0.1] },
      { seen: "stiff", value: null, range: null, p: 0.5, repairs: [0, 0.6, 0.4] },
    ];
    const repairs = new Map([
      [pack, 0.75],
      [motor, 0.25],
    ]);
    const dear = { ...costs, comebackMinor: 100_000 };
    const { testMoreMinor, fitNowMinor } = weighStopping(engine, repairs, [look(1, 0.81, small, 0.1)], dear);
    expect(testMoreMinor ?? 0).toBeLessThan(fitNowMinor);
  });
});

describe("the cost of a repair", () => {
  test("a set costs the sum of its parts", () => {
    expect(fitCostMinor(engine, repairIn(engine, "M1+R1"), costs)).toBe(4000);
  });

  test("a part's own price comes before its kind's, its kind's before the default", () => {
    const byKind = {
      ...costs,
      repairs: { resistor: { priceMinor: 7, minutes: 0 }, R1: { priceMinor: 5, minutes: 0 } },
    };
    expect(fitCostMinor(engine, repairIn(engine, "R1"), byKind)).toBe(5);
    expect(
      fitCostMinor(engine, repairIn(engine, "R1"), {
        ...byKind,
        repairs: { resistor: { priceMinor: 7, minutes: 0 } },
      }),
    ).toBe(7);
    expect(fitCostMinor(engine, repairIn(engine, "F7"), { ...costs, repairs: {} })).toBe(300 + 300);
    expect(fitCostMinor(engine, repairIn(engine, "W9"), { ...costs, repairs: {} })).toBe(500 + 3000);
    expect(fitCostMinor(engine, repairIn(engine, "X5"), { ...costs, repairs: {} })).toBe(1500 + 2500);
    expect(fitCostMinor(engine, repairIn(engine, "CAR"), { ...costs, repairs: {} })).toBe(1800 + 1000);
  });
});
