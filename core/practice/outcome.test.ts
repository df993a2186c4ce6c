import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../chance/chance";
import { diagnose } from "../diagnose/diagnose";
import { placeFault } from "../fault/fault";
import { heard, shippedEngine, shippedNetlist } from "../testing/shippedCircuit";
import { calibrationError, outcomeOf } from "./outcome";
import { SimulatedVehicle } from "./simulatedVehicle";
import { usualWorld } from "./world";

describe("calibration over ten equal bins", () => {
  test("by hand: nine of ten right at 0.9 is perfect, all right at 0.6 is 0.4 off, mixed by number", () => {
    const claims = (p: number, right: number, wrong: number) => [
      ...Array.from({ length: right }, () => ({ p, right: true })),
      ...Array.from({ length: wrong }, () => ({ p, right: false })),
    ];
    expect(calibrationError(claims(0.9, 9, 1))).toBeCloseTo(0, 9);
    expect(calibrationError(claims(0.6, 5, 0))).toBeCloseTo(0.4, 9);
    expect(calibrationError([...claims(0.9, 9, 1), ...claims(0.6, 10, 0)])).toBeCloseTo(0.2, 9);
    expect(calibrationError([])).toBe(0);
  });
});

describe("an outcome", () => {
  const engine = shippedEngine("whimbrel-four-speed");
  const result = diagnose(engine, heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }));
  if (!result.ok) throw new Error("no diagnosis");
  const fault = (where: string, mode: string) => {
    const placed = placeFault(engine.netlist, [{ where, mode, value: null }]);
    if (!placed.ok) throw new Error(where);
    return placed.value;
  };

  test("is right only for exactly the true parts", () => {
    expect(outcomeOf(result.value, fault("R1.link", "open"))).toBe("right");
    expect(outcomeOf(result.value, fault("M1", "open"))).toBe("wrong");
  });

  test("is `apart` if the truth is named among at most three that no test separates", () => {
    const named = (orElse: string[][]) => ({
      ...result.value,
      verdict: { ...result.value.verdict, state: "best-guess" as const, replace: ["W1"], orElse },
    });
    expect(outcomeOf(named([["W2"]]), fault("W2", "open"))).toBe("apart");
    expect(outcomeOf(named([["W2"], ["W3"]]), fault("W3", "open"))).toBe("apart");
    expect(outcomeOf(named([["W2"]]), fault("W3", "open"))).toBe("wrong");
    expect(outcomeOf(named([["W2"], ["W3"], ["W4"]]), fault("W2", "open"))).toBe("wrong");
  });
});

describe("the simulator", () => {
  const netlist = shippedNetlist("whimbrel-four-speed");
  const quiet = { ...usualWorld, slip: 0, heardSlip: 0, handError: 0 };
  const vehicle = (where: string, mode: string, seed = 1) => {
    const placed = placeFault(netlist, [{ where, mode, value: null }]);
    if (!placed.ok) throw new Error(where);
    return new SimulatedVehicle(netlist, placed.value, quiet, chanceFrom(seed));
  };

  test("an open link blows only on top, and the same seed is the same vehicle", () => {
    const seen = (seed: number) => vehicle("R1.link", "open", seed).complaint();
    const words = seen(1).flatMap((reading) =>
      reading.test === "airflow" && reading.key === "run" ? [reading.seen] : [],
    );
    expect(words).toEqual(["none", "none", "none", "none", "normal"]);
    expect(seen(2)).toEqual(seen(2));
  });

  test("similar random seeds do not start alike", () => {
    const firsts = Array.from({ length: 200 }, (_, seed) => chanceFrom(4000 + seed).uniform());
    const mean = firsts.reduce((sum, value) => sum + value, 0) / firsts.length;
    expect(Math.abs(mean - 0.5)).toBeLessThan(0.08);
    expect(Math.min(...firsts)).toBeLessThan(0.05);
    expect(Math.max(...firsts)).toBeGreaterThan(0.95);
  });

  test("a fault nobody notices brings no customer", () => {
    // The wire from the speed switch to ground shorted to ground changes nothing.
    expect(vehicle("W16", "to-ground").complaint()).toEqual([]);
  });
});
