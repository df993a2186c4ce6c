// Stopping, conflicts, plans, reasons, and parts left to the maker.
import { describe, expect, test } from "@jest/globals";
import { parseCircuit } from "../../circuit/parseCircuit";
import { defaultStoppingCosts } from "../../money/stoppingCosts";
import type { Reading } from "../../predict/reading";
import { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { problemText } from "../../problem/problem";
import { buildNetlist } from "../../solve/buildNetlist";
import { heard, shippedEngine, shippedJson } from "../../testing/shippedCircuit";
import { type DiagnoseOptions, type Diagnosis, diagnose } from "../diagnose";

const engine = shippedEngine("whimbrel-four-speed");
const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });

function diagnosed(readings: Reading[], options: DiagnoseOptions = {}, compiled = engine): Diagnosis {
  const result = diagnose(compiled, readings, options);
  if (!result.ok) throw new Error(result.problems.map(problemText).join("; "));
  return result.value;
}

const linkOpen: Reading[] = [
  ...onlyTop,
  { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
];

describe("stopping is decided by money", () => {
  test("at the break-even, repairing now costs the same as further testing", () => {
    const { verdict } = diagnosed(onlyTop);
    const fit = verdict.fitNowMinor - (1 - verdict.p) * defaultStoppingCosts.comebackMinor;
    const atBreakEven = fit + (1 - (verdict.breakEven ?? 0)) * defaultStoppingCosts.comebackMinor;
    // Cents are whole; the likeliest repair is the one done here.
    expect(Math.abs(atBreakEven - (verdict.testMoreMinor ?? 0))).toBeLessThan(2);
  });

  test("to a shop whose comebacks cost nothing no further test pays, but the proof is still asked for", () => {
    const one: Reading[] = [
      ...onlyTop,
      { test: "light", probe: "X5:4", clip: "G1.-", key: "run", setting: "2", seen: "bright" },
    ];
    const cheap = diagnosed(one, { costs: { ...defaultStoppingCosts, comebackMinor: 0 } });
    const dear = diagnosed(one, { costs: { ...defaultStoppingCosts, comebackMinor: 500_000 } });
    expect(cheap.verdict.testMoreMinor).toBeGreaterThanOrEqual(cheap.verdict.fitNowMinor);
    expect(cheap.verdict.state).toBe("open");
    expect(cheap.next[0]?.test).toEqual(cheap.verdict.proof.missing[0]);
    expect(dear.verdict.testMoreMinor).toBeLessThan(dear.verdict.fitNowMinor);
    expect(dear.verdict.state).toBe("open");
  });

  test("the shop's own prices and minutes are used, by part before kind", () => {
    const own = diagnosed(linkOpen, {
      costs: {
        ...defaultStoppingCosts,
        repairs: { R1: { priceMinor: 1, minutes: 0 }, resistor: { priceMinor: 9999, minutes: 9 } },
      },
    });
    const usual = diagnosed(linkOpen);
    expect(usual.verdict.fitNowMinor - own.verdict.fitNowMinor).toBe(3500 + 2250 - 1);
  });

  test("nothing is confirmed on the complaint alone, whatever the limit", () => {
    expect(
      diagnosed(onlyTop, { costs: { ...defaultStoppingCosts, settledBar: 0.5, comebackMinor: 0 } }).verdict
        .state,
    ).toBe("open");
  });
});

describe("looking ahead", () => {
  test("follows the outcomes two or three tests deep and prices the strategies", () => {
    const { plan, next } = diagnosed(onlyTop, { plan: true });
    expect(plan?.first?.test).toEqual(next[0]?.test);
    const odds = plan?.first?.outcomes.map(({ p }) => p) ?? [];
    expect(odds.length).toBeGreaterThan(1);
    expect(odds.reduce((sum, p) => sum + p, 0)).toBeLessThanOrEqual(1.0001);
    expect(plan?.first?.outcomes.some(({ next: after }) => after !== null)).toBe(true);
    expect(plan?.schools.map(({ school }) => school)).toEqual([
      "least-time",
      "supply-first",
      "motor-first",
      "resistor-first",
    ]);
    for (const { minutes } of plan?.schools ?? []) expect(minutes).toBeGreaterThan(0);
  });
});

describe("parts left to the maker", () => {
  function marked(id: string, key: "bus" | "brushless", kinds: readonly string[]): CompiledCircuit {
    const json = shippedJson(id);
    for (const part of json.parts as Record<string, unknown>[])
      if (kinds.includes(String(part.kind))) part[key] = true;
    const circuit = parseCircuit(json);
    if (!circuit.ok) throw new Error(circuit.problems.map(problemText).join("; "));
    const netlist = buildNetlist(circuit.value, { lumpWires: true });
    if (!netlist.ok) throw new Error(id);
    return new CompiledCircuit(netlist.value);
  }

  test("a module on a data bus is named; its command is never probed and it is never confirmed", () => {
    const bus = marked("siskin-linear-low", "bus", ["module", "head"]);
    const dead = heard({ "1": "none", "2": "none", "3": "none", "4": "none", "5": "none" });
    const diagnosis = diagnosed(
      [
        ...dead,
        { test: "volts", red: "X4:1", black: "X4:2", key: "run", setting: "5", volts: 12.4 },
        { test: "light", probe: "X4:5", clip: "G1.-", key: "run", setting: "5", seen: "bright" },
        { test: "lampload", lampFor: "M1", key: "run", setting: "5", seen: "dark" },
        { test: "spin", at: "M1", seen: "free" },
      ],
      {},
      bus,
    );
    expect(diagnosis.declined?.map(({ part }) => part)).toEqual(["A1", "A2"]);
    expect(JSON.stringify(diagnosis.next.map(({ test }) => test))).not.toMatch(/X4:3|A1\.cmd|X8:4|A2\.cmd/);
    expect(diagnosis.verdict.state).not.toBe("settled");
    expect(diagnosis.verdict.because).toContainEqual({
      kind: "declined",
      declined: { part: "A1", reason: "data-bus" },
    });
  });

  test("a brushless motor is named, and never fed directly or replaced by a lamp", () => {
    const brushless = marked("whimbrel-four-speed", "brushless", ["motor"]);
    const { next, declined } = diagnosed(
      heard({ "1": "none", "2": "none", "3": "none", "4": "none" }),
      { looks: 60 },
      brushless,
    );
    expect(declined?.map(({ part }) => part)).toEqual(["M1"]);
    expect(next.some(({ test }) => test.bridged || test.test === "lampload" || test.test === "ripple")).toBe(
      false,
    );
  });

  test("a blown fuse is still confirmed on such a vehicle", () => {
    const brushless = marked("whimbrel-four-speed", "brushless", ["motor"]);
    const { verdict } = diagnosed(
      [
        ...heard({ "1": "none", "2": "none", "3": "none", "4": "none" }),
        { test: "light", probe: "F7.in", clip: "G1.-", key: "run", setting: "4", seen: "bright" },
        { test: "light", probe: "F7.out", clip: "G1.-", key: "run", setting: "4", seen: "dark" },
        { test: "look", at: "F7", seen: "blown" },
        { test: "ohms", red: "F7.out", black: "G1.-", unplugged: ["F7"], ohms: null },
        { test: "spin", at: "M1", seen: "free" },
      ],
      {},
      brushless,
    );
    expect(verdict.replace).toEqual(["F7"]);
  });
});
