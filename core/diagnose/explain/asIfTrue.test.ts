import { describe, expect, test } from "@jest/globals";
import { type Reading, resultOf, type Test } from "../../predict/reading";
import { healthyVariant } from "../../predict/tables/compiledCircuit";
import { operatingPoint } from "../../solve/operatingPoint";
import { heard, shippedEngine } from "../../testing/shippedCircuit";
import { believe } from "../belief/belief";
import { diagnose } from "../diagnose";
import { asIfTrue } from "./asIfTrue";
import { expectedResult, supportOf } from "./expectation";

const engine = shippedEngine("whimbrel-four-speed");
const readings: Reading[] = [
  ...heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
  { test: "light", probe: "X5:4", clip: "G1.-", key: "run", setting: "2", seen: "bright" },
  { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
];
const belief = believe(engine, readings);
const support = supportOf(engine, belief);
const under = (family: string) => {
  const variants = engine.variants.flatMap((variant, i) => (variant.family === family ? [i] : []));
  const best = variants.reduce((top, i) =>
    (belief.variants[i] ?? 0) > (belief.variants[top] ?? 0) ? i : top,
  );
  return asIfTrue(engine, belief, support, best);
};

describe("the readings as if a suspect were true", () => {
  test("the truth fits every reading, and predicts it", () => {
    const all = under("R1.link:open");
    expect(all.map(({ reading }) => reading)).toEqual([0, 1, 2, 3, 4, 5]);
    expect(all.every(({ agrees }) => agrees)).toBe(true);
    for (const { reading, expected } of all)
      expect(expected.value).toBe(resultOf(readings[reading] as Reading) ?? Number.POSITIVE_INFINITY);
  });

  test("a wire beyond the plug predicts other ohms and another light, and the same speeds", () => {
    const all = under("W11:open");
    expect(all.map(({ agrees }) => agrees)).toEqual([true, true, true, true, false, false]);
    expect(Number(all[5]?.expected.value)).toBeCloseTo(2.3, 0);
    expect(all[4]?.expected.value).toBe("dark");
  });

  test("a blown fuse contradicts the speed that works", () => {
    const [, , , top] = under("F7:blown");
    expect(top).toEqual({ reading: 3, expected: { test: "airflow", value: "none" }, agrees: false });
  });

  test("a diagnosis compares them for as many leading suspects as requested, by place", () => {
    const result = diagnose(engine, readings, { asIf: 2 });
    if (!result.ok) throw new Error("no diagnosis");
    const { suspects, asIf } = result.value;
    expect(asIf).toHaveLength(2);
    expect(suspects[0]?.fault).toBe("R1.link:open");
    expect(asIf?.[0]).toEqual(under("R1.link:open"));
    const plain = diagnose(engine, readings);
    expect(plain.ok && plain.value.asIf).toBeUndefined();
  });

  test("without readings there is nothing to compare", () => {
    const empty = believe(engine, []);
    expect(asIfTrue(engine, empty, supportOf(engine, empty), 0)).toEqual([]);
  });
});

describe("what a vehicle with nothing wrong would show", () => {
  const expected = (look: Test): string | number => expectedResult(engine, look, healthyVariant).value;
  const live = { key: "run", setting: "2" } as const;

  test.each<[Test, string]>([
    [{ test: "light", probe: "F7.out", clip: "G1.-", ...live }, "bright"],
    [{ test: "light", probe: "X5:2", clip: "G1.+", key: "off" }, "dark"],
    [{ test: "airflow", key: "run", setting: "4" }, "normal"],
    [{ test: "spin", at: "M1" }, "free"],
    [{ test: "look", at: "R1" }, "clean"],
    [{ test: "listen", key: "run", setting: "4" }, "quiet"],
  ])("%j: %s", (look, shown) => expect(expected(look)).toEqual(shown));

  test("a fuse has almost no ohms", () => {
    expect(expected({ test: "ohms", red: "F7.in", black: "F7.out" })).toBeLessThan(0.1);
  });

  test("volts are the solver's own for the healthy circuit", () => {
    const { volts } = operatingPoint(engine.netlist, live, []);
    const [plus, minus] = [volts["X3:1"], volts["G1.-"]] as [number, number];
    expect(expected({ test: "volts", red: "X3:1", black: "G1.-", ...live })).toBeCloseTo(plus - minus, 3);
  });
});
