import { describe, expect, test } from "@jest/globals";
import type { Reading } from "../../predict/reading";
import { heard, shippedEngine, shippedIds } from "../../testing/shippedCircuit";
import { believe } from "../belief/belief";
import { expectedAt, expectedResult, othersOdds, readingOdds, supportOf } from "./expectation";
import { cite, decisiveReasons, pathReason, speedPaths, suspectWhy } from "./reasons";

const engine = shippedEngine("whimbrel-four-speed");
const sizesOf = (family: string): number[] =>
  engine.variants.flatMap((variant, index) => (variant.family === family ? [index] : []));

describe("the path argument is read off the healthy circuit's own currents", () => {
  test.each<[string, Record<string, "none" | "weak" | "normal">, RegExp | null]>([
    ["nothing dead", { "1": "normal", "4": "normal" }, null],
    [
      "only the lowest",
      { "1": "none", "2": "normal", "3": "normal", "4": "normal" },
      /^Speed 1 is dead and needs .*R1\.e1.*; speeds 2, 3 and 4, which go round them, work\.$/,
    ],
    [
      "the two lowest",
      { "1": "none", "2": "none", "3": "normal", "4": "normal" },
      /^Speeds 1 and 2 are dead and share .*R1\.e2/,
    ],
    [
      "only the top",
      { "1": "normal", "2": "normal", "3": "normal", "4": "none" },
      /^Speed 4 is dead and needs .*S2\.H/,
    ],
    [
      "all",
      { "1": "none", "2": "none", "3": "none", "4": "none" },
      /the whole way from feed to ground, \d+ parts, pins and wires\.$/,
    ],
    ["off is no speed", { off: "none" }, null],
  ])("%s", (_, speeds, expected) => {
    const reason = pathReason(engine, heard(speeds));
    if (expected) expect(reason).toMatch(expected);
    else expect(reason).toBeNull();
  });

  test("a weak speed proves no path either way", () => {
    const reason = pathReason(engine, heard({ "1": "none", "2": "weak", "3": "weak", "4": "weak" }));
    expect(reason).toMatch(/^Speed 1 is dead and/);
    expect(reason).not.toContain("work");
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

describe("why a suspect stands where it does", () => {
  const readings: Reading[] = [
    ...heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
    { test: "light", probe: "X5:4", clip: "G1.-", key: "run", setting: "2", seen: "bright" },
    { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
  ];
  const belief = believe(engine, readings);
  const support = supportOf(engine, belief);

  test("the sums behind it are the belief's own: belief times odds, over drawn vehicles", () => {
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

  test("for the truth: the ohms, by how much; against a fuse: the speed that works, and what it predicts", () => {
    expect(suspectWhy(engine, belief, support, sizesOf("R1.link:open"))).toMatch(
      /^For it: reading [56] \(.*\), \d+ to 1 against other parts\.$/,
    );
    expect(suspectWhy(engine, belief, support, sizesOf("F7:blown"))).toMatch(
      /Against it: reading \d.*; it predicts \w+/,
    );
    expect(
      suspectWhy(engine, believe(engine, []), supportOf(engine, believe(engine, [])), sizesOf("F7:blown")),
    ).toMatch(/^Nothing seen yet/);
  });

  test("against a rival: what it would have shown", () => {
    const against = decisiveReasons(engine, belief, support, sizesOf("R1.link:open"), {
      name: "W11",
      variants: sizesOf("W11:open"),
    });
    expect(against.join("\n")).toMatch(
      /^Reading 6 \(ohms from R1\.T1 to R1\.T4.*: no end\); W11 would have shown 2\.\d+ Ω, \d+ to 1\.$/m,
    );
    expect(decisiveReasons(engine, belief, support, sizesOf("R1.link:open"), null)).toEqual([]);
  });

  test("a citation numbers from one and says set-up and result", () => {
    expect(cite(belief, 4)).toBe("reading 5 (light clipped to G1.-, touch X5:4, key run, speed 2: bright)");
  });
});

describe("what a look would show", () => {
  const [link = 0] = sizesOf("R1.link:open");
  const [fuse = 0] = sizesOf("F7:blown");
  test.each<[Reading, number, RegExp]>([
    [{ test: "airflow", key: "run", setting: "2", seen: "none" }, link, /^none$/],
    [{ test: "airflow", key: "run", setting: "4", seen: "none" }, link, /^normal$/],
    [{ test: "volts", red: "F7.out", black: "G1.-", key: "run", setting: "4", volts: 0 }, link, /^12\.\d V$/],
    [{ test: "volts", red: "F7.out", black: "G1.-", key: "run", setting: "4", volts: 0 }, fuse, /^0\.0 V$/],
    [{ test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: 1 }, link, /^no end$/],
    [{ test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: 1 }, fuse, /^2\.2\d Ω$/],
    [{ test: "amps", around: "M1", key: "run", setting: "4", amps: 0 }, fuse, /^0\.0 A$/],
  ])("%j", (reading, variant, text) => expect(expectedAt(engine, reading, variant)).toMatch(text));

  test("by a look as by a reading", () => {
    expect(expectedResult(engine, { test: "spin", at: "M1" }, sizesOf("M1:seized")[0] ?? 0)).toBe("seized");
  });
});
