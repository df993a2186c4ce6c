import { describe, expect, test } from "@jest/globals";
import { shippedPlan, shippedPlans } from "../testing/shippedPlan";
import { parsePlugs, parseRoutes, plugsText, routesText, words } from "./planText";
import { fastenersText, parseFasteners } from "./typedFastener";

test.each(shippedPlans)("%s: typed text reads back as it was", (name) => {
  const plan = shippedPlan(name);
  for (const { needs = [], fasteners = [], plugs = [] } of plan.steps) {
    expect(parseRoutes(routesText(needs))).toEqual(needs);
    expect(parseFasteners(fastenersText(fasteners))).toEqual({ ok: true, value: fasteners });
    expect(parsePlugs(plugsText(plugs))).toEqual(plugs);
  }
});

describe("typed by hand", () => {
  test("any number of fasteners, any spacing, sizes in millimetres, inches or none", () => {
    const read = parseFasteners(
      " 3  hex 5.5 mm plastic hidden ; 1 torx T20 metal loosened back 0, 2 phillips plastic,4 hex 9/32 in metal",
    );
    expect(read.ok && read.value).toEqual([
      { count: 3, head: "hex", size: "5.5 mm", into: "plastic", hidden: true },
      { count: 1, head: "torx", size: "T20", into: "metal", loosenOnly: true, back: 0 },
      { count: 2, head: "phillips", into: "plastic" },
      { count: 4, head: "hex", size: "9/32 in", into: "metal" },
    ]);
    expect(parseFasteners("")).toEqual({ ok: true, value: [] });
  });

  test("as called out over the shoulder", () => {
    const read = parseFasteners(
      "3 push clips, 2 nuts 7 mm, 2 T25 into plastic, 9/32, 4 screws 5,5 into metal, 6 bolts 10mm instead T30 screws, 2 x ph2",
    );
    expect(read.ok ? read.value : read.problems).toEqual([
      { count: 3, kind: "push-clip" },
      { count: 2, kind: "nut", size: "7 mm" },
      { count: 2, head: "torx", size: "T25", into: "plastic" },
      { count: 1, head: "hex", size: "9/32 in" },
      { count: 4, head: "hex", size: "5.5 mm", into: "metal" },
      { count: 6, kind: "bolt", size: "10 mm", instead: { head: "torx", size: "T30" } },
      { count: 2, head: "phillips", size: "PH2" },
    ]);
    expect(read.ok && parseFasteners(fastenersText(read.value))).toEqual(read);
  });

  test.each(["0 screws", "3", "3 widgets", "2 T25 into wood", "2 nuts 7 mm instead"])(
    "%j is refused",
    (text) => {
      expect(parseFasteners(text).ok).toBe(false);
    },
  );

  test("what cannot be read is named", () => {
    const read = parseFasteners("3 hex 7 mm plastic, two screws");
    expect(read.ok ? "" : read.problems[0]?.message).toBe(
      'expected like "3 hex 5.5 mm plastic hidden", "2 nuts 7 mm" or "3 push clips", got "two screws"',
    );
  });

  test("ways with extra spaces", () => {
    expect(parseRoutes(" mat+flap /  / box ")).toEqual([["mat", "flap"], ["box"]]);
    expect(parseRoutes("")).toEqual([]);
    expect(words(" a, b ,, c")).toEqual(["a", "b", "c"]);
  });
});
