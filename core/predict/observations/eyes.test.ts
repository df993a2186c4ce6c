// What eyes prove, and how far damage travels (common practice, no source; the ratios are those the trade asks for).
import { describe, expect, test } from "@jest/globals";
import { diagnose } from "../../diagnose/diagnose";
import { heard, shippedEngine } from "../../testing/shippedCircuit";
import { light, look } from "../../testing/takenReadings";
import type { Reading } from "../reading";

const engine = shippedEngine("whimbrel-four-speed");
const dead = heard({ "1": "none", "2": "none", "3": "none", "4": "none" });
const topOnly = heard({ "1": "none", "2": "none", "3": "none", "4": "normal" });

function diagnosed(readings: readonly Reading[]) {
  const result = diagnose(engine, readings);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

/** Odds that a family of faults is behind it, against everything else. */
function oddsOf(readings: readonly Reading[], belongs: (fault: string) => boolean): number {
  const p = diagnosed(readings)
    .suspects.filter(({ fault }) => fault !== null && belongs(fault))
    .reduce((sum, own) => sum + own.p, 0);
  return p / (1 - p);
}

describe("eyes are evidence", () => {
  test("a fuse seen blown is worth at least 200 to 1, whatever a lamp behind it suggested", () => {
    const blown = (fault: string): boolean => fault.includes("F7:blown");
    expect(oddsOf([...dead, look("F7", "blown")], blown) / oddsOf(dead, blown)).toBeGreaterThan(200);
    const dim = [...dead, light("X3:1", "G1.-", "4", "dim"), light("F7.out", "G1.-", "4", "dim")];
    const seen = diagnosed([...dim, look("F7", "blown")]);
    expect(seen.suspects[0]?.fault).toMatch(/F7:blown/);
  });

  test("a plug seen melted is worth at least 50 to 1 for a bad contact in it against a fault elsewhere", () => {
    const odds = (readings: readonly Reading[]): number => {
      const { suspects } = diagnosed(readings);
      const sum = (pattern: RegExp): number =>
        suspects.filter(({ fault }) => pattern.test(fault ?? "")).reduce((total, { p }) => total + p, 0);
      return sum(/^X3:\d:high/) / sum(/^F19:blown$/);
    };
    expect(odds([...dead, look("X3", "melted")]) / odds(dead)).toBeGreaterThan(50);
  });

  test("a melted plug beside a burnt-out pack supports it and is never called a mistake", () => {
    const readings: Reading[] = [
      ...topOnly,
      { test: "ohms", red: "R1.T3", black: "R1.T4", key: "off", unplugged: ["X5"], ohms: null },
      look("X5", "melted"),
    ];
    const { conflicts, parts, verdict } = diagnosed(readings);
    expect(conflicts).toEqual([]);
    expect(parts[0]?.part).toBe("R1");
    expect(verdict.replace).toEqual(["R1", "X5"]);
    expect(verdict.p).toBeGreaterThan(0.9);
  });

  test("looking and finding nothing clears a fuse only in part, and never condemns another part outright", () => {
    const clean = diagnosed([...dead, look("F7", "clean")]);
    expect(clean.conflicts).toEqual([]);
    expect(clean.verdict.state).toBe("open");
  });
});
