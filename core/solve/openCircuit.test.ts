import { describe, expect, test } from "@jest/globals";
import { shippedNetlist } from "../testing/shippedCircuit";
import { setupState } from "./netlist/setup";
import { nominalValues } from "./netlist/values";
import { openCircuit } from "./openCircuit";
import { PointSolver } from "./pointSolver";
import { lampVolts, lampWord, testLight } from "./tungstenLamp";

const netlist = shippedNetlist("whimbrel-four-speed");
const solver = new PointSolver(netlist);
const between = (setting: string, one: string, other: string, unplugged: string[] = []) =>
  openCircuit(
    solver,
    solver.solve(nominalValues(netlist), setupState(netlist, { key: "run", setting, unplugged }), []),
    netlist,
    one,
    other,
  );

describe("the equivalent source between two points", () => {
  test("of a battery: its rest volts minus its internal drop, behind a few hundredths of an ohm", () => {
    const found = between("off", "G1.+", "G1.-");
    expect(found.volts).toBeCloseTo(12.6, 1);
    expect(found.ohms).toBeLessThan(0.05);
    expect(found.floats).toBe(false);
  });

  test("reversed it is the same with its sign changed", () => {
    const [there, back] = [between("2", "X3:1", "X3:2"), between("2", "X3:2", "X3:1")];
    expect(back.volts).toBeCloseTo(-there.volts, 9);
    expect(back.ohms).toBeCloseTo(there.ohms, 9);
  });

  test("between a point and itself is zero", () => {
    expect(between("2", "X5:1", "X5:1")).toEqual({ volts: 0, ohms: 0, floats: false });
  });

  test("with the pack's plug off its pins float on a speed whose switch is open, with infinite ohms behind them", () => {
    const found = between("4", "R1.T2", "G1.-", ["X5"]);
    expect(found).toEqual({ volts: 0, ohms: Number.POSITIVE_INFINITY, floats: true });
  });
});

describe("how an eye judges a lamp", () => {
  test.each([
    [12, "bright"],
    [9.1, "bright"],
    [9, "dim"],
    [3.1, "dim"],
    [3, "dark"],
    [0, "dark"],
  ] as const)("%p V: %s", (volts, word) => expect(lampWord(volts)).toBe(word));

  // By Ohm's law: behind 10 kΩ a 3 W lamp gets almost none of 12 V; behind 0.1 Ω it gets nearly all.
  test("behind ohms that starve it, and behind few", () => {
    expect(lampWord(lampVolts(testLight, 12, 10_000))).toBe("dark");
    expect(lampWord(lampVolts(testLight, 12, 0.1))).toBe("bright");
  });
});
