import { describe, expect, test } from "@jest/globals";
import type { Reading } from "../../predict/reading";
import { heard, shippedEngine, shippedIds } from "../../testing/shippedCircuit";
import { believe } from "../belief/belief";
import { expectedResult, othersOdds, readingOdds, supportOf } from "./expectation";
import { cite, decisiveReasons, pathReason, speedPaths, suspectWhy } from "./reasons";

const engine = shippedEngine("whimbrel-four-speed");
const sizesOf = (family: string): number[] =>
  engine.variants.flatMap((variant, index) => (variant.family === family ? [index] : []));

describe("the path argument comes from the healthy circuit's own currents", () => {
  test("the dead speeds share what the working ones bypass", () => {
    const reason = pathReason(engine, heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }));
    expect(reason).toMatchObject({ kind: "path", dead: ["1", "2", "3"], working: ["4"] });
    expect(reason?.kind === "path" && reason.shared).toEqual([
      { kind: "part", id: "R1.e3" },
      { kind: "part", id: "R1.link" },
      { kind: "pin", id: "X5:4" },
      { kind: "wire", id: "W11" },
    ]);
  });

  test.each(shippedIds)("on %s a faster speed's path carries at least as much", (id) => {
    const own = shippedEngine(id);
    const paths = [...speedPaths(own).values()];
    expect(paths[0]?.size).toBe(0);
    const most = paths.map((path) => Math.max(0, ...path.values()));
    for (let i = 2; i < most.length; i++)
      expect(most[i] ?? 0).toBeGreaterThanOrEqual((most[i - 1] ?? 0) * 0.999);
    expect(most.at(-1)).toBeGreaterThan(5);
  });
});

describe("why a suspect has its rank", () => {
  const readings: Reading[] = [
    ...heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
    { test: "light", probe: "X5:4", clip: "G1.-", key: "run", setting: "2", seen: "bright" },
    { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
  ];
  const belief = believe(engine, readings);
  const support = supportOf(engine, belief);

  test("its sums are the belief's own: belief times odds, over sampled vehicles", () => {
    const link = sizesOf("R1.link:open");
    const others = [...engine.variants.keys()].filter((variant) => !link.includes(variant));
    const own = readingOdds(support, link);
    for (const [reading, rest] of othersOdds(support, link).entries()) {
      expect(rest).toBeCloseTo(readingOdds(support, others)[reading] ?? -1, 9);
      expect(own[reading]).toBeLessThanOrEqual(1 + 1e-9);
      // The likelihood of one reading given the rest is the belief with it over the belief without it.
      const fewer = believe(
        engine,
        readings.filter((_, index) => index !== reading),
      );
      const before = link.reduce((sum, variant) => sum + (fewer.variants[variant] ?? 0), 0);
      const now = link.reduce((sum, variant) => sum + (belief.variants[variant] ?? 0), 0);
      expect(own[reading]).toBeCloseTo((now / before) * Math.exp(belief.evidence - fewer.evidence), 6);
    }
  });

  test("the ohms support the truth; the working speed contradicts a fuse", () => {
    const truth = suspectWhy(engine, belief, support, sizesOf("R1.link:open"));
    expect(truth).toMatchObject({ kind: "weighed", against: null });
    expect(truth.kind === "weighed" && truth.strongest?.cited.number).toBeGreaterThanOrEqual(5);
    expect(suspectWhy(engine, belief, support, sizesOf("F7:blown"))).toMatchObject({
      kind: "weighed",
      against: { expected: { value: expect.anything() } },
    });
  });

  test("against a rival it states the rival's prediction; without one it says nothing", () => {
    const rival = { parts: ["W11"], variants: sizesOf("W11:open") };
    expect(decisiveReasons(engine, belief, support, sizesOf("R1.link:open"), rival)).toContainEqual(
      expect.objectContaining({ kind: "deciding", rival: ["W11"], cited: cite(belief, 5) }),
    );
    expect(decisiveReasons(engine, belief, support, sizesOf("R1.link:open"), null)).toEqual([]);
  });
});

test("a test is predicted as a reading is", () => {
  expect(expectedResult(engine, { test: "spin", at: "M1" }, sizesOf("M1:seized")[0] ?? 0)).toEqual({
    test: "spin",
    value: "seized",
  });
});

test("the path argument names the speeds in the order of the switch, whatever the order they were told in", () => {
  const engine = shippedEngine("whimbrel-four-speed");
  const readings = [
    ...heard({ "3": "none", "4": "normal" }),
    ...heard({ "1": "none" }),
    ...heard({ "2": "none" }),
  ];
  expect(pathReason(engine, readings)).toMatchObject({ dead: ["1", "2", "3"], working: ["4"] });
});
