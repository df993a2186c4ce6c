// Which readings of a job are a motor's current, and which volts are a joint's drop.
import type { Reading } from "@core/predict/reading";
import { describe, expect, test } from "@jest/globals";
import { operatingPoint } from "../../core/solve/operatingPoint";
import { shippedCircuit } from "../../core/testing/shippedCircuit";
import { clampedCurrentDraws, motorPart, motorView, recordingLines, wholeNetlist } from "./motorView.server";

const circuit = shippedCircuit("whimbrel-four-speed");
const netlist = wholeNetlist(circuit);
const setup = { key: "run" as const, setting: "4" };
const { amps } = operatingPoint(netlist, setup);
const clamped = (around: string, value: number, at: object = setup): Reading => ({
  test: "amps",
  around,
  amps: value,
  ...at,
});
const volts = (red: string, black: string, value: number): Reading => ({
  test: "volts",
  red,
  black,
  volts: value,
  ...setup,
});

describe("draws among a job's readings", () => {
  test("a clamp on the motor or on a wire with the same current counts; one on a branch does not follow the speed", () => {
    const own = circuit.wires.find(
      ({ id }) => Math.abs(Math.abs(amps[id] ?? 0) / (amps.M1 ?? 1) - 1) < 0.001,
    );
    const small = circuit.wires.find(({ id }) => Math.abs(amps[id] ?? 0) < 0.5 * (amps.M1 ?? 1));
    const readings = [clamped("M1", 14), clamped(own?.id ?? "", -14.2), clamped(small?.id ?? "", 0.2)];
    expect(clampedCurrentDraws(netlist, "M1", readings).map((draw) => draw.amps)).toEqual([14, 14.2]);
  });

  test("volts across the motor or its plug belong to the current of the same set-up, with either polarity", () => {
    const plug = netlist.points.pinOnTerminal.get("M1.+") ?? "";
    const otherPlug = netlist.points.pinOnTerminal.get("M1.-") ?? "";
    const across = (reading: Reading) =>
      clampedCurrentDraws(netlist, "M1", [reading, clamped("M1", 14)])[0]?.volts;
    expect(across(volts("M1.+", "M1.-", 11.2))).toBe(11.2);
    expect(across(volts(plug, otherPlug, 11.4))).toBe(11.4);
    expect(across(volts(otherPlug, plug, -11.4))).toBe(11.4);
    expect(across(volts("M1.+", "G1.-", 12))).toBeUndefined();
    const elsewhere = clampedCurrentDraws(netlist, "M1", [
      volts("M1.+", "M1.-", 11),
      clamped("M1", 6, { key: "run", setting: "2" }),
    ]);
    expect(elsewhere[0]?.volts).toBeUndefined();
  });
});

describe("the page's view", () => {
  const stored = (reading: Reading, number: number, struck = false) => ({
    id: `r${number}`,
    number,
    reading,
    source: null,
    takenBy: null,
    takenAt: new Date(0),
    struckAt: struck ? new Date(0) : null,
  });

  test("leaves deleted readings out, and counts small volts along current-carrying joints as drops", () => {
    const view = motorView(
      circuit,
      "M1",
      [
        stored(clamped("M1", 25), 1, true),
        stored(clamped("M1", 14), 2),
        stored(volts("X3:1", "M1.+", 0.4), 3),
        stored(volts("M1.+", "M1.-", 11), 4),
        stored(volts("X3:1", "M1.+", 0.9), 5, true),
      ],
      false,
    );
    expect(view.draw.setups.find((row) => row.setup.setting === "4")?.measuredAmps).toBe(14);
    expect(view.drops.map(({ number }) => number)).toEqual([3]);
  });

  test("with the engine running, every speed draws more current", () => {
    const [off, on] = [false, true].map((engine) => motorView(circuit, "M1", [], engine).draw.setups);
    off?.forEach((row, i) => void expect(on?.[i]?.healthyAmps.usual).toBeGreaterThan(row.healthyAmps.usual));
  });

  test("a recording is from before or after the repair, and its motor part is the same for every version of the circuit", () => {
    const record = { kind: "humps" } as never;
    const at = (minute: number) => ({
      id: "t",
      jobId: 1,
      record,
      healthyOf: null,
      takenAt: new Date(60_000 * minute),
      struckAt: null,
    });
    const when = (fitted: Date | null) => recordingLines([at(5), at(15)], fitted).map((line) => line.when);
    expect(when(null)).toEqual(["before", "before"]);
    expect(when(new Date(600_000))).toEqual(["before", "after"]);
    expect(motorPart(circuit, "M1")).toBe("whimbrel-four-speed|M1");
  });
});
