import { describe, expect, test } from "@jest/globals";
import { repairIn, shippedEngine } from "../../testing/shippedCircuit";
import type { Forecast, ForecastOutcome } from "./forecast";
import { readableOutcomes } from "./readableOutcomes";

const engine = shippedEngine("whimbrel-four-speed");
const [pack, motor] = [repairIn(engine, "R1"), repairIn(engine, "M1")];

/** A range of volts after which the pack has this share and the motor the rest. */
const range = (low: number, high: number, p: number, ofPack: number): ForecastOutcome => ({
  seen: `${low}…${high}`,
  value: (low + high) / 2,
  range: { low, high },
  p,
  repairs: [ofPack, 1 - ofPack],
});

const forecast = (outcomes: ForecastOutcome[]): Forecast => ({
  look: { test: "spin", at: "M1" },
  bits: 1,
  minutes: 1,
  accessMinutes: 0,
  repairs: [pack, motor],
  entropy: 1,
  outcomes,
});

describe("outcomes a person can read", () => {
  test("neighbouring ranges that lead to the same part are one, with the odds added and the belief averaged", () => {
    const shown = readableOutcomes(
      forecast([range(0, 1, 0.1, 0.9), range(1, 3, 0.3, 0.7), range(11, 12, 0.6, 0.2)]),
    );
    expect(shown.map(({ seen }) => seen)).toEqual(["0…3.00", "11…12"]);
    expect(shown[0]?.p).toBeCloseTo(0.4, 12);
    // (0.1 × 0.9 + 0.3 × 0.7) / 0.4
    expect(shown[0]?.repairs[0]).toBeCloseTo(0.75, 12);
    // A tap on the range enters a figure of its likelier half, not one between the two.
    expect(shown[0]?.value).toBe(2);
    expect(shown[0]?.pieces.map(({ value }) => value)).toEqual([0.5, 2]);
    expect(shown[1]?.pieces).toEqual([]);
  });

  test("ranges that lead to different parts are at most five, and the least likely are joined first", () => {
    const many = Array.from({ length: 9 }, (_, i) => range(i, i + 0.5, i === 4 ? 0.02 : 0.1225, i % 2));
    const shown = readableOutcomes(forecast(many));
    expect(shown).toHaveLength(5);
    expect(shown.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 9);
    expect(shown.some((one) => one.range?.low === 4 && one.range.high === 4.5)).toBe(false);
  });

  test("OL (open) stays by itself, and words stay as they are", () => {
    const open: ForecastOutcome = {
      seen: "no end",
      value: null,
      range: { low: Number.POSITIVE_INFINITY, high: Number.POSITIVE_INFINITY },
      p: 0.5,
      repairs: [0.9, 0.1],
    };
    expect(readableOutcomes(forecast([range(1, 2, 0.5, 0.8), open])).map(({ seen }) => seen)).toEqual([
      "1…2",
      "no end",
    ]);
    const words = ["quiet", "squeal", "rumble", "tick", "whistle", "scrape"].map((seen) => ({
      seen,
      value: null,
      range: null,
      p: 1 / 6,
      repairs: [0.5, 0.5],
    }));
    expect(readableOutcomes(forecast(words))).toEqual(words.map((own) => ({ ...own, pieces: [] })));
  });
});
