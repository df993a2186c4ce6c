import { describe, expect, test } from "@jest/globals";
import { defaultStoppingCosts } from "../money/stoppingCosts";
import { allTools } from "../predict/observations/tool";
import { problemText } from "../problem/problem";
import { shippedCircuit, shippedJson } from "../testing/shippedCircuit";
import { parseCase } from "./case";

const library = (id: string) => (id === "whimbrel-four-speed" ? shippedCircuit(id) : null);
const bare = { format: "airway-case", version: 1, circuitId: "whimbrel-four-speed", readings: [] };

function refusals(input: unknown): string[] {
  const parsed = parseCase(input, library);
  return parsed.ok ? [] : parsed.problems.map(problemText);
}

describe("a case file", () => {
  test("with only the required keys has every tool, the plain strategy and the default costs", () => {
    const parsed = parseCase(bare, library);
    expect(parsed.ok && parsed.value).toMatchObject({
      id: null,
      tools: allTools,
      school: "least-time",
      readings: [],
      costs: defaultStoppingCosts,
      counts: [],
    });
  });

  test("may contain its circuit instead of naming it", () => {
    const { format, version, readings } = bare;
    const parsed = parseCase(
      { format, version, readings, circuit: shippedJson("siskin-five-speed") },
      library,
    );
    expect(parsed.ok && parsed.value.circuit.id).toBe("siskin-five-speed");
  });

  test("keeps its id, tools, strategy, readings, costs and counts", () => {
    const reading = { test: "look", at: "F7", seen: "clean" };
    const parsed = parseCase(
      {
        ...bare,
        id: "bay-2",
        tools: ["test-light"],
        school: "motor-first",
        readings: [reading],
        shop: {
          hourMinor: 12000,
          repairs: { R1: { priceMinor: 100, minutes: 5 } },
          counts: [{ kind: "link", mode: "open", n: 3 }],
        },
      },
      library,
    );
    expect(parsed.ok && parsed.value).toMatchObject({
      id: "bay-2",
      tools: ["test-light"],
      school: "motor-first",
      readings: [reading],
      costs: { ...defaultStoppingCosts, hourMinor: 12000, repairs: { R1: { priceMinor: 100, minutes: 5 } } },
      counts: [{ kind: "link", mode: "open", n: 3 }],
    });
  });
});

describe("the work list and the visit before a comeback", () => {
  const heard = { test: "airflow", key: "run", setting: "1", seen: "none", heard: true };
  const line = {
    part: "R1",
    what: "resistor pack R1",
    done: "renewed",
    round: 1,
    state: "done",
    number: "HW 4410-18",
  };

  test("are read, and absent where the file says nothing", () => {
    const earlier = { readings: [heard], parts: ["R1"] };
    const parsed = parseCase({ ...bare, works: [line], earlier }, library);
    expect(parsed.ok && parsed.value).toMatchObject({ works: [line], earlier: { ...earlier, repairs: [] } });
    const none = parseCase(bare, library);
    expect(none.ok && none.value).toMatchObject({ works: [], earlier: null });
  });

  test.each([
    [{ works: [{ ...line, done: "blessed" }] }, /^works\.0\.done: /],
    [{ works: [{ ...line, round: 0 }] }, /^works\.0\.round: /],
    [{ works: [line, { ...line, round: 2 }] }, /^works\.1\.round: the last round is 1/],
    [{ earlier: { readings: [{ test: "taste" }], parts: [] } }, /^earlier\.readings\.0/],
  ])("%j is refused by its place", (more, problem) => {
    const parsed = parseCase({ ...bare, ...more }, library);
    expect(parsed.ok ? "" : parsed.problems.map(problemText).join("\n")).toMatch(problem);
  });
});

describe("what does not fit is refused with its place", () => {
  test.each<[string, unknown, RegExp]>([
    ["no circuit", { ...bare, circuitId: undefined }, /^circuit: expected a circuit, or a circuitId/],
    ["both", { ...bare, circuit: {} }, /^circuitId: give circuit or circuitId, not both$/],
    [
      "one that is not there",
      { ...bare, circuitId: "heron" },
      /^circuitId: no circuit "heron" in the library$/,
    ],
    [
      "a broken circuit inside",
      { ...bare, circuitId: undefined, circuit: { format: "x" } },
      /^circuit\.format: /,
    ],
    ["an unknown tool", { ...bare, tools: ["laser"] }, /^tools\.0: expected "test-light" or/],
    ["an unknown school", { ...bare, school: "guess" }, /^school: expected "least-time" or/],
    [
      "an unknown test",
      { ...bare, readings: [{ test: "sniff" }] },
      /^readings\.0\.test: not a known test: "sniff"/,
    ],
    [
      "a word a light never gives",
      { ...bare, readings: [{ test: "light", probe: "F7.in", clip: "G1.-", seen: "hot" }] },
      /^readings\.0\.seen: expected "bright" or "dim"/,
    ],
    [
      "volts as text",
      { ...bare, readings: [{ test: "volts", red: "F7.in", black: "G1.-", volts: "12" }] },
      /^readings\.0\.volts: expected number, got "12"$/,
    ],
    [
      "a bar below a half",
      { ...bare, shop: { settledBar: 0.3 } },
      /^shop\.settledBar: must be at least 0\.5/,
    ],
    ["money in fractions", { ...bare, shop: { hourMinor: 1.5 } }, /^shop\.hourMinor: expected int/],
    ["an unknown key", { ...bare, customer: "x" }, /^unknown key "customer"$/],
    ["another version", { ...bare, version: 2 }, /^version: expected 1, got 2$/],
    [
      "too many readings",
      { ...bare, readings: Array(501).fill({ test: "smell", seen: "none" }) },
      /at most 500/,
    ],
  ])("%s", (_, input, message) => {
    expect(refusals(input).some((text) => message.test(text)) ? "named" : refusals(input)).toBe("named");
  });

  test.each([null, 1, "case", []])("%j is not a case", (input) => expect(refusals(input).length).toBe(1));
});
