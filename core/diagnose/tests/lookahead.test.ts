import { describe, expect, test } from "@jest/globals";
import { allTools } from "../../predict/observations/tool";
import { heard, repairIn, shippedEngine } from "../../testing/shippedCircuit";
import { believe, repairBelief } from "../belief/belief";
import { type LookaheadTest, lookahead } from "./lookahead";
import { type NextOptions, nextTests } from "./nextTest";
import { readingFrom } from "./readingFrom";

const engine = shippedEngine("whimbrel-four-speed");
const options: NextOptions = { tools: allTools, school: "least-time", count: 8 };
const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });

describe("the reading an outcome makes", () => {
  const p = { p: 0.5, repairs: [] };
  const points = { red: "F7.in", black: "G1.-" };
  test.each([
    [{ test: "light", probe: "F7.in", clip: "G1.-" }, { seen: "dim", value: null }, { seen: "dim" }],
    [{ test: "volts", ...points }, { seen: "11.8…12.4", value: 12.1 }, { volts: 12.1 }],
    [{ test: "amps", around: "M1" }, { seen: "18…19", value: 18.5 }, { amps: 18.5 }],
    [{ test: "ohms", ...points }, { seen: "2.20", value: 2.2 }, { ohms: 2.2 }],
    [{ test: "ohms", ...points }, { seen: "no end", value: null }, { ohms: null }],
  ] as const)("%j with the outcome %j", (look, outcome, result) => {
    expect(readingFrom(look, { ...p, ...outcome })).toEqual({ ...look, ...result });
  });
});

function depthOf(look: LookaheadTest | null): number {
  return look ? 1 + Math.max(0, ...look.outcomes.map(({ next }) => depthOf(next))) : 0;
}

describe("looking ahead", () => {
  const belief = believe(engine, onlyTop);
  const [first] = nextTests(engine, belief, options);
  const plan = lookahead(engine, belief, options, first ?? null);

  test("starts with the first suggested test and goes at most three deep, with the meaning of each outcome", () => {
    expect(plan.first?.test).toEqual(first?.look);
    expect(depthOf(plan.first)).toBeLessThanOrEqual(3);
    expect(depthOf(plan.first)).toBeGreaterThan(1);
    const walk = (look: LookaheadTest): void => {
      expect(look.outcomes.length).toBeLessThanOrEqual(3);
      for (const [place, { p, repair, repairP, next }] of look.outcomes.entries()) {
        if (place > 1) expect(p).toBeGreaterThanOrEqual(0.06);
        expect(repair).not.toBe("");
        expect(repairP).toBeLessThanOrEqual(1);
        if (next) walk(next);
      }
    };
    if (plan.first) walk(plan.first);
  });

  test("prices the strategy that follows the calculation within a minute of the others or below", () => {
    // The walk is only three tests deep, so small differences are allowed.
    const minutes = Object.fromEntries(plan.schools.map((cost) => [cost.school, cost.minutes]));
    for (const other of Object.values(minutes)) expect(minutes["least-time"]).toBeLessThan(other + 1);
  });

  test("counts the visits, the place one is at not again", () => {
    for (const { visits } of plan.schools) expect(visits).toBeGreaterThan(0.9);
    const there = believe(engine, [...onlyTop, { test: "look", at: "X5", seen: "clean" }]);
    const [second] = nextTests(engine, there, options);
    const walked = lookahead(engine, there, options, second ?? null).schools;
    expect(walked.find(({ school }) => school === "least-time")?.visits).toBeLessThan(1);
  });

  test("once the verdict is confirmed there is nothing to plan", () => {
    const settled = believe(engine, [
      ...onlyTop,
      { test: "ohms", red: "R1.T3", black: "R1.T4", unplugged: ["X5"], ohms: null },
      { test: "ohms", red: "R1.T1", black: "R1.T2", unplugged: ["X5"], ohms: 1.2 },
      { test: "volts", red: "X3:1", black: "X3:2", key: "run", setting: "4", volts: 11.6 },
      { test: "spin", at: "M1", seen: "free" },
    ]);
    expect(repairBelief(engine, settled).get(repairIn(engine, "R1"))).toBeGreaterThan(0.95);
    expect(lookahead(engine, settled, options, null).first).toBeNull();
  });
});
