// Work by visit: one place, eyes and hands before instruments, getting there paid once (common practice, no source).
import { describe, expect, test } from "@jest/globals";
import { observationOf } from "../../predict/observations/index";
import { heard, shippedEngine, shippedIds } from "../../testing/shippedCircuit";
import { light, look, volts } from "../../testing/takenReadings";
import { diagnose } from "../diagnose";
import { placeOfTest, visitsOf } from "./visit";

const engine = shippedEngine("whimbrel-four-speed");
const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });

function nextOf(id: string, readings: Parameters<typeof diagnose>[1]) {
  const result = diagnose(shippedEngine(id), readings);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

describe("a visit", () => {
  test.each(shippedIds)("on %s is one place, its tests first, and its minutes pay the way once", (id) => {
    const compiled = shippedEngine(id);
    const [, ...speeds] = compiled.netlist.circuit.settings;
    const { next } = nextOf(id, heard(Object.fromEntries(speeds.map((speed) => [speed, "none" as const]))));
    const own = next.filter(({ visit }) => visit);
    expect(own.length).toBeGreaterThan(0);
    expect(next.slice(0, own.length)).toEqual(own);
    const [first] = own;
    for (const { test: one, visit } of own) {
      expect(visit).toEqual(first?.visit);
      expect(placeOfTest(compiled, one)).toBe(visit?.place);
    }
    const each = own.reduce((sum, { minutes }) => sum + minutes, 0);
    const way = compiled.netlist.circuit.places.find(({ id: place }) => place === first?.visit?.place);
    expect(first?.visit?.minutes).toBeLessThanOrEqual(each + 1e-9);
    expect(first?.visit?.minutes).toBeGreaterThanOrEqual(
      each - (own.length - 1) * ((way?.minutes ?? 0) + 1) - 1e-9,
    );
    const seen = own.map(({ test: one }) => one.test === "look" || one.test === "tap");
    const instruments = own.map(({ test: one }) => observationOf(one.test).tools.length > 0);
    expect(seen.lastIndexOf(true)).toBeLessThan(
      instruments.includes(true) ? instruments.indexOf(true) : own.length,
    );
  });

  test("where only the top speed works goes to the pack, not to the clamp", () => {
    const { next, verdict } = nextOf("whimbrel-four-speed", onlyTop);
    expect(next[0]?.visit?.place).toBe("under-dash");
    expect(next[0]?.test.test).not.toBe("amps");
    expect(verdict.payingLook).toEqual(next[0]?.test);
  });

  test("a place that is open costs no way to it", () => {
    const [first] = nextOf("whimbrel-four-speed", [...onlyTop, look("R1", "clean")]).next;
    expect(first?.visit?.place).toBe("under-dash");
    expect(first?.minutes).toBeLessThan(4);
  });
});

describe("visits taken", () => {
  test("a new one begins where the place changes; the place one is at already counts as none", () => {
    const readings = [
      look("X5", "clean"),
      volts("X3:1", "4", 12),
      light("F7.in", "G1.-", "4", "bright"),
      light("X5:1", "G1.+", "1", "bright"),
    ];
    expect(visitsOf(engine, [])).toBe(0);
    expect(visitsOf(engine, readings)).toBe(3);
    expect(visitsOf(engine, readings, "under-dash")).toBe(2);
  });
});
