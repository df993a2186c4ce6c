import { describe, expect, test } from "@jest/globals";
import { problemText } from "../problem/problem";
import { shippedIds, shippedJson } from "../testing/shippedCircuit";
import { parseCircuit } from "./parseCircuit";

// biome-ignore lint/suspicious/noExplicitAny: these tests write into files of unknown shape on purpose
type Spoilt = any;

/** The problems of a shipped circuit after one thing in it is spoilt. */
function spoil(change: (circuit: Spoilt) => void): string[] {
  const circuit = shippedJson("whimbrel-four-speed") as Spoilt;
  change(circuit);
  const parsed = parseCircuit(circuit);
  return parsed.ok ? [] : parsed.problems.map(problemText);
}

test.each(shippedIds)("%s is accepted", (id) => {
  expect(parseCircuit(shippedJson(id)).ok).toBe(true);
});

describe("what does not fit is refused with its place, what was found and what was expected", () => {
  test.each<[string, (circuit: Spoilt) => void, RegExp]>([
    [
      "an unknown terminal",
      (c) => (c.wires[0].to = "J1.q"),
      /^wires\.0\.to: unknown terminal "J1\.q", J1 has s$/,
    ],
    ["a wire to nowhere", (c) => (c.wires[3].from = "F99.out"), /^wires\.3\.from: no part "F99"/],
    [
      "a reference without a dot",
      (c) => (c.wires[3].from = "F7out"),
      /^wires\.3\.from: expected PART\.terminal/,
    ],
    [
      "a duplicate id",
      (c) => (c.parts[4].id = "F1"),
      /^parts\.4\.id: duplicate id "F1", first used at parts\.3$/,
    ],
    ["an id used by a wire and a part", (c) => (c.wires[0].id = "R1"), /^wires\.0\.id: duplicate id "R1"/],
    ["an unknown key", (c) => (c.parts[3].volts = 12), /^parts\.3: unknown key "volts"$/],
    [
      "an unknown kind",
      (c) => (c.parts[3].kind = "lamp"),
      /^parts\.3\.kind: not a known kind: "lamp", expected one of battery/,
    ],
    ["text for a number", (c) => (c.parts[3].amps = "ten"), /^parts\.3\.amps: expected number, got "ten"$/],
    ["a negative resistance", (c) => (c.parts[1].ohms = -1), /^parts\.1\.ohms: must be at least 0, got -1$/],
    ["no wire size", (c) => (c.wires[0].mm2 = 0), /^wires\.0\.mm2: must be above 0, got 0$/],
    [
      "a colour that is none",
      (c) => (c.wires[0].colour = "RED"),
      /^wires\.0\.colour: must be IEC 60757 codes/,
    ],
    [
      "two batteries",
      (c) => c.parts.push({ ...c.parts[0], id: "G2" }),
      /^parts: expected exactly one battery, got 2$/,
    ],
    ["no battery", (c) => c.parts.shift(), /^parts: expected exactly one battery, got 0/],
    [
      "a pin plugged twice",
      (c) => (c.connectors[1].pins["2"] = "R1.T1"),
      /^connectors\.1\.pins\.2: "R1\.T1" is already plugged/,
    ],
    [
      "an unknown setting in a switch",
      (c) => (c.parts[8].closes["7"] = ["L1"]),
      /^parts\.8\.closes: unknown setting "7"/,
    ],
    [
      "a motor that stalls below its rating",
      (c) => (c.parts[10].stallAmps = 10),
      /^parts\.10\.stallAmps: must be above ratedAmps 18/,
    ],
    [
      "a place with a part that is not there",
      (c) => c.places[0].parts.push("Q1"),
      /^places\.0\.parts\.5: no part or connector "Q1"$/,
    ],
    [
      "an element from a point to itself",
      (c) => (c.parts[9].elements[0].to = "T1"),
      /^parts\.9\.elements\.0: both ends are "T1"$/,
    ],
    ["another version", (c) => (c.version = 2), /^version: expected 1, got 2$/],
  ])("%s", (_, change, message) => {
    const problems = spoil(change);
    expect(problems.some((problem) => message.test(problem)) ? "named" : problems).toBe("named");
  });

  test.each([null, 3, "text", [], {}])("%p is no circuit", (input) => {
    expect(parseCircuit(input).ok).toBe(false);
  });

  test("a long value is quoted in short, on one line", () => {
    const [problem = ""] = spoil((circuit) => {
      circuit.wires[0].to = `J1.${"\n".repeat(20)}${"x".repeat(500)}`;
    });
    expect(problem.length).toBeLessThan(200);
    expect(problem).not.toContain("\n");
  });
});
