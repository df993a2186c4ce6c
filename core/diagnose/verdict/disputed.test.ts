import { describe, expect, test } from "@jest/globals";
import type { Reading } from "../../predict/reading";
import { heard, shippedEngine } from "../../testing/shippedCircuit";
import { light, look, volts } from "../../testing/takenReadings";
import { diagnose } from "../diagnose";
import { disputedReading } from "./disputed";
import { noiseToHear } from "./noiseToHear";

const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });
const open: Reading = { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null };
// With the top speed blowing there is feed behind the motor.
const slip = light("X5:4", "G1.-", "4", "dark");

function diagnosed(readings: readonly Reading[]) {
  const result = diagnose(shippedEngine("whimbrel-four-speed"), readings);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

describe("a reading that contradicts the others", () => {
  const readings: Reading[] = [
    ...onlyTop,
    open,
    volts("X3:1", "4", 3.1),
    { test: "amps", around: "M1", key: "run", setting: "4", amps: 14.2 },
    look("X5", "clean"),
  ];

  test("is asked for again before the verdict, and never confirmed over", () => {
    const { conflicts, verdict, next } = diagnosed(readings);
    expect(conflicts.map(({ reading }) => reading)).toEqual([6]);
    expect(verdict.state).toBe("open");
    expect(next[0]?.test).toMatchObject({ test: "volts", red: "X3:1", setting: "4" });
  });

  test("is settled by a second result that differs, and stands if it repeats", () => {
    const again = diagnosed([...readings, volts("X3:1", "4", 12.1)]);
    expect(disputedReading([...readings, volts("X3:1", "4", 12.1)], again.conflicts)).toBeNull();
    const same = diagnosed([...readings, volts("X3:1", "4", 3.1)]);
    expect(same.verdict.state).not.toBe("settled");
  });

  test("knows a repeated test by its key, whatever the order", () => {
    const conflict = { reading: 0, slip: { reading: 1 }, against: { kind: "rest" } } as never;
    expect(disputedReading([slip], [conflict])).toMatchObject({ once: true });
    expect(disputedReading([slip, slip], [conflict])).toMatchObject({ once: false });
    expect(disputedReading([slip, { ...slip, seen: "bright" } as Reading], [conflict])).toBeNull();
    expect(disputedReading([slip], [])).toBeNull();
  });
});

describe("a noise the customer told of", () => {
  const told = (seen: "whistle" | "squeal" | "quiet"): Reading => ({
    test: "listen",
    heard: true,
    key: "run",
    setting: "4",
    seen,
  });

  test("is heard for oneself, a whistle with a finger over the vent hole", () => {
    expect(noiseToHear([told("squeal")])).toEqual({ test: "listen", key: "run", setting: "4" });
    expect(noiseToHear([told("whistle")])).toMatchObject({ ventCovered: true });
  });

  test("asks nothing if there is none, or once somebody listened", () => {
    expect(noiseToHear([...onlyTop, told("quiet")])).toBeNull();
    expect(noiseToHear([told("squeal"), { ...told("squeal"), heard: undefined }])).toBeNull();
  });
});
