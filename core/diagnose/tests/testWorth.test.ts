// The worth of a test: information, minutes, where strategies begin, and what no test can separate.
import { describe, expect, test } from "@jest/globals";
import { allTools, type Tool } from "../../predict/observations/tool";
import type { Reading, Test } from "../../predict/reading";
import { heard, shippedEngine, shippedIds } from "../../testing/shippedCircuit";
import { fusedLeads } from "../../testing/takenReadings";
import { activeSuspects, cellsOf } from "../belief/activeSuspects";
import { believe, repairBelief } from "../belief/belief";
import { entropyAfter, entropyBits } from "../belief/entropy";
import { Screening } from "../belief/screening";
import { diagnose } from "../diagnose";
import { minutesNow, openPlaces, placeOf, testCost } from "./access";
import { candidateTests, shortsBelief } from "./candidateTests";
import { forecastTest } from "./forecast";
import { indistinguishable } from "./grouping";
import { type NextOptions, nextTests } from "./nextTest";
import { strategies } from "./strategy";

const engine = shippedEngine("whimbrel-four-speed");
const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });
const allDead = heard({ "1": "none", "2": "none", "3": "none", "4": "none" });
const options: NextOptions = { tools: allTools, school: "least-time", count: 24 };

describe("entropy", () => {
  test.each([
    [[1], 0],
    [[0.5, 0.5], 1],
    [[1, 1, 1, 1], 2],
    [[3, 1], 0.8112781245],
    [[0, 0], 0],
    [[], 0],
  ])("of %p is %p bits, whatever they sum to", (weights, bits) =>
    expect(entropyBits(weights)).toBeCloseTo(bits, 9),
  );

  test("an outcome that decides leaves none, and one without information leaves it unchanged", () => {
    expect(
      entropyAfter([
        [1, 0],
        [0, 1],
      ]),
    ).toBe(0);
    expect(
      entropyAfter([
        [0.5, 0.5],
        [0.5, 0.5],
      ]),
    ).toBe(1);
    // By hand: outcome one (weight 3/4) leaves {2/3, 1/3}, 0.9183 bits; outcome two leaves none.
    expect(
      entropyAfter([
        [2, 1],
        [0, 1],
      ]),
    ).toBeCloseTo(0.75 * 0.9182958341, 9);
  });
});

describe.each(shippedIds)("the tests suggested on %s", (id) => {
  const own = shippedEngine(id);
  const speeds = own.netlist.circuit.settings.slice(1);
  const complaint = heard(
    Object.fromEntries(speeds.map((speed, i) => [speed, i === 0 ? ("none" as const) : ("weak" as const)])),
  );
  const belief = believe(own, complaint);
  const looks = nextTests(own, belief, options);

  test("carry between nothing and all the information, and leave valid probabilities", () => {
    const whole = entropyBits([...repairBelief(own, belief).values()]);
    expect(looks.length).toBeGreaterThan(5);
    for (const { bits, outcomes, minutes, accessMinutes, entropy } of looks) {
      expect(bits).toBeGreaterThan(0);
      expect(bits).toBeLessThanOrEqual(entropy + 1e-9);
      expect(entropy).toBeLessThanOrEqual(whole + 0.05);
      expect(minutes).toBeGreaterThan(accessMinutes);
      for (const { p, repairs } of outcomes) {
        expect(p).toBeGreaterThan(0);
        expect(repairs.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 6);
      }
    }
  });

  test("never include one already taken, nor one whose tools are missing", () => {
    const [first] = looks;
    const taken = {
      ...first?.look,
      ...(first?.look.test === "volts" ? { volts: 1 } : { seen: "dark" }),
    } as Reading;
    const key = JSON.stringify(first?.look);
    const after = nextTests(own, believe(own, [...complaint, taken]), options);
    expect(after.map(({ look }) => JSON.stringify(look))).not.toContain(key);
    const needs: Partial<Record<Test["test"], Tool>> = {
      light: "test-light",
      volts: "meter",
      ohms: "meter",
      amps: "clamp",
      lampload: "load-lamp",
      swap: "spare-relay",
    };
    for (const tool of allTools) {
      const bare = candidateTests(
        own,
        allTools.filter((other) => other !== tool),
        true,
      );
      const wanting = bare.filter(
        ({ test: look }) =>
          needs[look.test] === tool ||
          (tool === "jump-leads" && (look.bridged ?? []).length > 0) ||
          (tool === "load-lamp" && look.lampFor !== undefined),
      );
      expect(wanting).toEqual([]);
    }
  });
});

describe("weighing", () => {
  test("the cells of a suspect add up to its whole belief", () => {
    const belief = believe(engine, onlyTop);
    const active = activeSuspects(engine, belief);
    const cells = cellsOf(engine, belief, active);
    const byVariant = new Map<number, number>();
    cells.weight.forEach((weight, i) => {
      const variant = cells.variant[i] ?? 0;
      byVariant.set(variant, (byVariant.get(variant) ?? 0) + weight);
    });
    for (const [variant, weight] of byVariant) expect(weight).toBeCloseTo(belief.variants[variant] ?? -1, 9);
    expect(cells.rows.weight.reduce((sum, w) => sum + w, 0)).toBeCloseTo(
      cells.weight.reduce((sum, w) => sum + w, 0),
      9,
    );
  });

  test("the screening by the nominal vehicle keeps the tests the ranking prefers", () => {
    const belief = believe(engine, onlyTop);
    const active = activeSuspects(engine, belief);
    const screening = new Screening(engine, belief, active);
    const cells = cellsOf(engine, belief, active);
    const candidates = candidateTests(engine, allTools);
    const coarse = candidates.map(({ column }) => screening.bits(column()));
    const fine = candidates.map(({ test: look }) => forecastTest(engine, active, cells, look).bits);
    const whole = entropyBits([...repairBelief(engine, belief).values()]);
    for (const bits of coarse) {
      expect(bits).toBeGreaterThanOrEqual(0);
      expect(bits).toBeLessThanOrEqual(whole + 1e-9);
    }
    const order = (bits: readonly number[]) =>
      [...bits.keys()].sort((a, b) => (bits[b] ?? 0) - (bits[a] ?? 0));
    const kept = new Set(order(coarse).slice(0, 60));
    for (const best of order(fine).slice(0, 8)) expect(kept).toContain(best);
  });

  test("a light weighed straight from its table gives the same as its odds cell by cell", () => {
    const belief = believe(engine, onlyTop);
    const active = activeSuspects(engine, belief);
    const cells = cellsOf(engine, belief, active);
    const clip = { test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "2" } as const;
    const fast = forecastTest(engine, active, cells, clip);
    // The same light with its clip and tip exchanged uses the same table.
    const turned = forecastTest(engine, active, cells, { ...clip, probe: "G1.+", clip: "X5:2" });
    expect(fast.bits).toBeCloseTo(turned.bits, 9);
    expect(fast.outcomes().map(({ seen }) => seen)).toEqual(turned.outcomes().map(({ seen }) => seen));
  });

  test("tests for shorts are suggested only once shorts are among the suspects", () => {
    const tests = (readings: Reading[]): string =>
      JSON.stringify(
        nextTests(engine, believe(engine, readings), { ...options, count: 60 }).map(({ look }) => look),
      );
    expect(shortsBelief(engine, believe(engine, onlyTop))).toBeLessThan(0.02);
    const blown: Reading[] = [
      ...allDead,
      { test: "light", probe: "F7.in", clip: "G1.-", key: "run", setting: "4", seen: "bright" },
      { test: "light", probe: "F7.out", clip: "G1.-", key: "run", setting: "4", seen: "dark" },
      { test: "look", at: "F7", seen: "blown" },
    ];
    expect(shortsBelief(engine, believe(engine, blown))).toBeGreaterThan(0.05);
    expect(tests(blown)).toMatch(/"ohms","red":"F7\.out"/);
  });
});

describe("minutes", () => {
  test("a wire's end is at its terminal's place, a battery post is anywhere", () => {
    expect(placeOf(engine, "W14/to")).toBe(placeOf(engine, "S2.L2"));
    expect(placeOf(engine, "X5:2")).toBe("under-dash");
    expect(placeOf(engine, "G1.-")).toBeNull();
  });

  test("unplugging and bridging cost half a minute each, an open place costs nothing", () => {
    const cost = testCost(engine, fusedLeads);
    expect(cost.minutes).toBeCloseTo(0.3 + 3 * 0.5, 9);
    expect(minutesNow(cost, new Set())).toBeCloseTo(cost.minutes + 4, 9);
    expect(minutesNow(cost, openPlaces(engine, [{ test: "look", at: "X3", seen: "clean" }]))).toBeCloseTo(
      cost.minutes,
      9,
    );
  });
});

describe("strategies", () => {
  test.each(strategies)("%s ends at the same verdict as the others", (school) => {
    const result = diagnose(
      engine,
      [
        ...allDead,
        { test: "volts", red: "X3:1", black: "X3:2", key: "run", setting: "4", volts: 12.3 },
        { test: "spin", at: "M1", seen: "free" },
        { test: "ohms", red: "M1.+", black: "M1.-", unplugged: ["X3"], ohms: null },
      ],
      { school },
    );
    expect(result.ok && result.value.verdict.replace).toEqual(["M1"]);
  });
});

describe("what no test can separate", () => {
  test("two wires in one run with no point between them share a group; parts with a pin between them do not", () => {
    const at = (family: string): number[] => [
      engine.variants.findIndex((variant) => variant.family === family),
    ];
    const looks = candidateTests(engine, allTools, true);
    const suspects = ["R1.link:open", "R1.e3:open", "X5:4:open", "W11:open", "M1:open", "M1:dead-spot"].map(
      at,
    );
    const groups = indistinguishable(engine, suspects, looks);
    expect(groups[0]).not.toBe(groups[2]);
    expect(groups[2]).not.toBe(groups[3]);
    // Tapping separates a dead spot from an open winding.
    expect(groups[4]).not.toBe(groups[5]);
    expect(indistinguishable(engine, [at("M1:open"), at("M1:open")], looks)).toEqual([1, 1]);
    // Once the motor was tapped and everything else was done, nothing is left to tell the two apart.
    const all = new Set(looks.map(({ key }) => key));
    expect(indistinguishable(engine, [at("M1:open"), at("M1:dead-spot")], looks, all)).toEqual([1, 1]);
  });
});
