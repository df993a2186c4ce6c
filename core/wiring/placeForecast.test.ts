import { describe, expect, test } from "@jest/globals";
import { placeComplaint } from "../testing/placeComplaint";
import { CandidateCache } from "./compiledCandidate";
import { PlaceForecasts } from "./placeForecast";
import type { PlaceReading } from "./placeReading";
import { labelsMet, placeTestMinutes } from "./placeTest";
import { isWithin, placeTests } from "./placeTests";
import { believeWiring } from "./wiringBelief";

const cache = new CandidateCache();
const seen = { speeds: 4, speedPart: "pack" } as const;
const onlyTop = placeComplaint(["none", "none", "none", "normal"]);
const forecastsOf = (readings: readonly PlaceReading[]): PlaceForecasts =>
  new PlaceForecasts(believeWiring(seen, readings, cache), labelsMet(readings));
const lampOff = { test: "light", at: "motor-plug", clip: "ground", key: "run", setting: "0" } as const;

describe("the forecast of a test by place", () => {
  const forecasts = forecastsOf(onlyTop);

  test("its outcomes are all that can happen, and telling nothing is worth nothing", () => {
    for (const one of placeTests(forecasts.candidates(), new Map(), null)) {
      const { outcomes, bits, wiringBits } = forecasts.of(one);
      expect(outcomes.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 9);
      expect(bits).toBeGreaterThan(-1e-9);
      expect(wiringBits).toBeGreaterThan(-1e-9);
      if (outcomes.length === 1) expect(Math.abs(bits)).toBeLessThan(1e-9);
    }
  });

  // Common practice, no source: a light on both motor pins with the blower off tells the side, not the fault.
  test("a light at the motor's plug with the blower off is about the wiring", () => {
    const { bits, wiringBits, outcomes } = forecasts.of(lampOff);
    expect(wiringBits).toBeGreaterThan(0.5);
    expect(bits).toBeLessThan(0.1);
    expect(
      outcomes
        .slice(0, 2)
        .map(({ seen: words }) => words)
        .sort(),
    ).toEqual(["bright, bright", "dark, dark"]);
  });

  test("the number of wires at the pack's plug tells whether the top speed passes through it", () => {
    const { outcomes, wiringBits } = forecasts.of({ test: "wires", at: "pack-plug" });
    expect(outcomes.map(({ seen: words }) => words).sort()).toEqual(["4 wires", "5 wires"]);
    expect(wiringBits).toBeGreaterThan(0.1);
  });

  test("a part that a wiring has not is an outcome of its own", () => {
    const { outcomes } = forecasts.of({ test: "swap", at: "relay", key: "run", setting: "4" });
    expect(outcomes.map(({ seen: words }) => words)).toContain("absent");
  });

  test("once labels are known, the order of the words counts", () => {
    const read: PlaceReading = { ...lampOff, seen: { a: "bright", b: "bright" } };
    const later = forecastsOf([...onlyTop, read]);
    const { outcomes } = later.of({ ...lampOff, setting: "1" });
    expect(outcomes[0]?.seen.split(", ")).toHaveLength(2);
  });

  test("faults that no test tells apart share a group, others do not", () => {
    const [own] = forecasts.candidates();
    if (!own) throw new Error("no candidate");
    const variantOf = (id: string): number => own.compiled.variants.findIndex((variant) => variant.id === id);
    const tests = placeTests([own], new Map(), null);
    const [open, motor, again] = forecasts.groups(
      [variantOf("R1.link:open"), variantOf("M1:open"), variantOf("R1.link:open")],
      tests,
    );
    expect(open).toBe(again);
    expect(open).not.toBe(motor);
  });
});

describe("tests by place", () => {
  test("need the tools they need", () => {
    expect(isWithin(lampOff, [])).toBe(false);
    expect(isWithin(lampOff, ["test-light"])).toBe(true);
    expect(isWithin({ test: "airflow", leads: true }, ["test-light"])).toBe(false);
    expect(isWithin({ test: "airflow", leads: true }, ["jump-leads"])).toBe(true);
    expect(isWithin({ test: "ripple", at: "motor", key: "run", setting: "4" }, ["clamp"])).toBe(false);
    expect(isWithin({ test: "look", at: "pack-plug" }, [])).toBe(true);
  });

  // The table of docs/formats.
  test.each<[Parameters<typeof placeTestMinutes>[0], number, number]>([
    [lampOff, 2, 0.6],
    [{ test: "light", at: "fuses", clip: "ground" }, 3, 1],
    [{ test: "volts", at: "pack-plug", black: "ground" }, 5, 1.5],
    [{ test: "volts", red: "motor-plug:a", black: "motor-plug:b" }, 2, 0.7],
    [{ test: "ohms", at: "pack-plug", from: "a" }, 4, 1.6],
    [{ test: "amps", around: "motor-plug:a" }, 2, 1],
    [{ test: "airflow", leads: true }, 0, 1.5],
    [{ test: "airflow" }, 0, 0.3],
    [{ test: "lampload", lampFor: "motor-plug" }, 0, 2.5],
    [{ test: "wires", at: "pack-plug" }, 4, 0.3],
    [{ test: "look", at: "motor" }, 0, 0.4],
    [{ test: "spin", at: "motor" }, 0, 1.5],
    [{ test: "listen" }, 0, 0.5],
    [{ test: "smell" }, 0, 0.2],
    [{ test: "history", of: "damp" }, 0, 0.2],
    [{ test: "tap", at: "motor" }, 0, 0.6],
    [{ test: "swap", at: "relay" }, 0, 1.5],
    [{ test: "ripple", at: "motor" }, 0, 2],
  ])("%j at %d pins takes %d minutes", (one, pins, minutes) => {
    expect(placeTestMinutes(one, pins)).toBeCloseTo(minutes, 9);
  });

  test("labels are met wherever a reading names them", () => {
    const met = labelsMet([
      { ...lampOff, seen: { b: "dark", a: "bright" } },
      { test: "volts", red: "pack-plug:d", black: "ground", volts: 3 },
      { test: "ohms", at: "pack-plug", from: "a", ohms: { c: 2 } },
      { test: "amps", around: "switch-plug:a", amps: 3 },
      { test: "light", at: "fuses", clip: "ground", seen: { a: "good" } },
      { test: "look", at: "pack-plug", seen: "clean" },
      { test: "swap", at: "relay", absent: true },
    ]);
    expect(Object.fromEntries(met)).toEqual({
      "motor-plug": ["a", "b"],
      "pack-plug": ["a", "c", "d"],
      "switch-plug": ["a"],
      fuses: ["a"],
    });
  });
});
