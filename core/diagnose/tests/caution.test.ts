import { describe, expect, test } from "@jest/globals";
import { allTools } from "../../predict/observations/tool";
import type { Test } from "../../predict/reading";
import { shippedEngine, shippedIds } from "../../testing/shippedCircuit";
import { candidateTests } from "./candidateTests";
import { cautionsOf } from "./caution";

const engine = shippedEngine("whimbrel-four-speed");
const live = { key: "run", setting: "2" } as const;

// The dangers are the trade's: common practice, no source.
describe("cautions at the point of the work", () => {
  test.each<[string, Test, string[]]>([
    ["air at the vent", { test: "airflow", ...live }, []],
    ["a fuse under the bonnet", { test: "light", probe: "F7.in", clip: "G1.-", ...live }, []],
    ["turning the wheel", { test: "spin", at: "M1" }, ["wheel", "airbag"]],
    ["the pack", { test: "look", at: "R1" }, ["wheel", "airbag", "hot-pack"]],
    [
      "the pack's plug",
      { test: "light", probe: "X5:2", clip: "G1.+", ...live },
      ["wheel", "airbag", "hot-pack"],
    ],
    [
      "a lamp in the motor's place",
      { test: "lampload", lampFor: "M1", ...live },
      ["wheel", "airbag", "fused-lead", "load-lamp"],
    ],
    ["a relay's swap", { test: "swap", at: "K3", ...live }, ["swap"]],
    ["what was asked", { test: "history", of: "damp" }, []],
  ])("%s", (_, look, expected) => expect(cautionsOf(engine, look)).toEqual(expected));

  test("a fan that cannot be switched off has its own caution instead of the wheel's", () => {
    const spin = { test: "spin", at: "M1" } as const;
    expect(cautionsOf(engine, spin, true)).toEqual(["runs-on", "airbag"]);
    expect(cautionsOf(engine, spin)).toEqual(["wheel", "airbag"]);
  });

  test.each(shippedIds)("%s: every jump lead and every lamp needs a fuse, and says so", (id) => {
    const compiled = shippedEngine(id);
    const unsaid = candidateTests(compiled, allTools, true).filter(({ test: look }) => {
      const lead = (look.bridged ?? []).length > 0 || look.lampFor !== undefined;
      return cautionsOf(compiled, look).includes("fused-lead") !== lead;
    });
    expect(unsaid).toEqual([]);
  });
});
