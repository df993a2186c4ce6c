import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { declinedParts } from "../circuit/declined";
import { parseCircuit } from "../circuit/parseCircuit";
import { buildNetlist } from "../solve/buildNetlist";
import { circuitFamily } from "../solve/checks/circuitFamily";
import { circuitFindings } from "../solve/checks/circuitFinding";
import { healthyPoints } from "../solve/healthyPoint";
import { questionsAsked, type TraceAnswers, traceQuestionIds } from "./traceAnswer";
import { traceCircuit } from "./traceCircuit";

const name = { id: "traced", title: "Traced" };

function traced(answers: TraceAnswers) {
  const circuit = parseCircuit(traceCircuit(name, answers));
  if (!circuit.ok) throw new Error(JSON.stringify(circuit.problems));
  const netlist = buildNetlist(circuit.value);
  if (!netlist.ok) throw new Error(JSON.stringify(netlist.problems));
  return { circuit: circuit.value, netlist: netlist.value };
}

const structures: TraceAnswers[] = [];
for (const [feed, relay] of [
  ["always", "yes"],
  ["always", "no"],
  ["key", "no"],
] as const)
  for (const hands of ["ground", "feed"] as const)
    for (const speeds of [2, 4, 6]) {
      for (const top of ["switch", "relay", "pack"] as const)
        for (const link of ["all", "lowest", "none"] as const)
          structures.push({ feed, relay, hands, speeds, top, link, control: "resistor" });
      for (const control of ["linear", "chopping"] as const)
        structures.push({ feed, relay, hands, speeds, control });
    }

const words = (answers: TraceAnswers): string => Object.values(answers).map(String).join(" ");

describe("a trace whose values nobody knows", () => {
  test.each(structures.map((answers) => [words(answers), answers] as const))("%s", (_, answers) => {
    const { circuit, netlist } = traced(answers);
    expect(circuitFindings(netlist)).toEqual([]);
    const speeds = healthyPoints(netlist).map(({ point }) => point.rpm.M1 ?? 0);
    expect(speeds[0]).toBe(0);
    for (const [index, own] of speeds.entries())
      if (index > 0) expect(own).toBeGreaterThan((speeds[index - 1] as number) + 50);
    expect(circuitFamily(netlist)).toMatchObject({
      side: answers.hands,
      speeds: answers.speeds,
      control: answers.control,
    });
    // Values that nobody gave are marked as assumed.
    expect(circuit.wires.every(({ assumed }) => assumed)).toBe(true);
    for (const kind of ["motor", "fuse", "resistor", "module", "head", "relay", "ground"])
      for (const part of circuit.parts.filter((one) => one.kind === kind)) expect(part.assumed).toBe(true);
  });
});

test("an answered value is in the circuit and not marked as assumed", () => {
  const { circuit } = traced({
    fuse: { id: "F31", amps: 30 },
    coil: { relay: "K5", fuse: "F12", amps: 7.5 },
    speeds: 4,
    ohms: { steps: [1.2, 0.62, 0.33] },
    grounds: { blower: "E4", coil: "E5" },
    motor: { amps: 18 },
    plugs: { motor: "X31", control: "X52", switch: "X60" },
    reach: { box: 3, dashBox: 2, blower: 6, switch: 9 },
  });
  const part = (id: string) => circuit.parts.find((own) => own.id === id);
  expect(part("F31")).toEqual({ id: "F31", kind: "fuse", amps: 30 });
  expect(part("F12")).toEqual({ id: "F12", kind: "fuse", amps: 7.5 });
  expect(part("R1")).toEqual({
    id: "R1",
    kind: "resistor",
    elements: [
      { id: "e1", from: "T1", to: "T2", ohms: 1.2 },
      { id: "e2", from: "T2", to: "T3", ohms: 0.62 },
      { id: "e3", from: "T3", to: "N", ohms: 0.33 },
      { id: "link", from: "N", to: "T4", thermalLink: true },
    ],
  });
  expect(part("M1")).toMatchObject({ ratedAmps: 18, stallAmps: 72 });
  expect(circuit.connectors.map(({ id }) => id)).toEqual(["X31", "X60", "X52"]);
  expect(circuit.places.map(({ minutes }) => minutes)).toEqual([3, 2, 6, 9]);
  expect(circuit.wires.some(({ to }) => to === "E4.31")).toBe(true);
});

test("values that are never asked for stay assumed: a relay's coil, a panel's volts for each speed", () => {
  const { circuit } = traced({
    control: "linear",
    coil: { relay: "K5", fuse: "F12", amps: 7.5 },
    command: { still: 0, full: 5 },
  });
  const of = (kind: string) => circuit.parts.find((part) => part.kind === kind);
  expect(of("relay")).toMatchObject({ id: "K5", assumed: true });
  expect(of("head")).toHaveProperty("assumed", true);
  expect(of("module")).not.toHaveProperty("assumed");
});

test("names as a diagram writes them become titles, and ids are made from them", () => {
  const { circuit } = traced({
    fuse: { id: "blower fuse", amps: 30 },
    grounds: { blower: "left kick panel" },
    plugs: { motor: "C-216", control: "resistor plug 2", switch: "X3" },
  });
  const part = (id: string) => circuit.parts.find((own) => own.id === id);
  expect(part("blower-fuse")).toMatchObject({ kind: "fuse", title: "blower fuse", amps: 30 });
  expect(part("left-kick-panel")).toMatchObject({ kind: "ground", title: "left kick panel" });
  expect(circuit.connectors.map(({ id }) => id)).toEqual(["C-216", "X3", "resistor-plug-2"]);
  expect(circuit.connectors.map(({ title }) => title)).toEqual([
    "motor plug",
    "speed switch plug",
    "resistor plug 2",
  ]);
  expect(circuit.places.find(({ id }) => id === "blower")?.parts).toContain("resistor-plug-2");
});

test("a control module on a data bus is left to the maker's procedure, and its volts are not asked for", () => {
  const answers = { control: "linear", signal: "bus" } as const;
  expect(questionsAsked(answers)).not.toContain("command");
  expect(declinedParts(traced(answers).circuit)).toEqual([
    { part: "A1", reason: "data-bus" },
    { part: "A2", reason: "data-bus" },
  ]);
});

test("a partly known pack keeps what is known and stays assumed", () => {
  const pack = traced({ speeds: 4, ohms: { steps: [2, null, null] } }).circuit.parts.find(
    ({ id }) => id === "R1",
  );
  expect(pack).toMatchObject({ assumed: true, elements: [{ ohms: 2 }, { id: "e2" }, { id: "e3" }, {}] });
});

test("two parts with one name make no circuit, and the place says which", () => {
  const made = parseCircuit(traceCircuit(name, { fuse: { id: "F2", amps: 40 } }));
  expect(made).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining('"F2"') }] });
});

test("a question no answer leads to is not asked", () => {
  expect(questionsAsked({})).not.toContain("command");
  expect(questionsAsked({ control: "linear" })).toEqual(
    traceQuestionIds.filter((id) => !["top", "link", "ohms"].includes(id)),
  );
  expect(questionsAsked({ relay: "no" })).not.toContain("coil");
});

test("any motor and any ohms make a circuit that can be solved", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...structures),
      fc.double({ min: 2, max: 60, noNaN: true }),
      fc.array(fc.option(fc.double({ min: 0.05, max: 30, noNaN: true })), { maxLength: 6 }),
      (answers, amps, steps) => {
        const { netlist } = traced({ ...answers, motor: { amps }, ohms: { steps } });
        for (const { point } of healthyPoints(netlist))
          expect(Object.values(point.amps).every(Number.isFinite)).toBe(true);
      },
    ),
    { numRuns: 150 },
  );
});

describe("what nobody answered", () => {
  const known: TraceAnswers = {
    feed: "always",
    relay: "yes",
    control: "resistor",
    hands: "ground",
    top: "switch",
    link: "all",
  };

  test("about the wiring makes the wiring assumed; about a value or a place, or not asked yet, does not", () => {
    expect(traced(known).circuit.wiring).toBeUndefined();
    expect(traced({}).circuit.wiring).toBeUndefined();
    expect(traced({ ...known, motor: null, ohms: null, reach: null }).circuit.wiring).toBeUndefined();
    for (const question of ["feed", "relay", "control", "hands", "top", "link"] as const)
      expect(traced({ ...known, [question]: null }).circuit.wiring).toBe("assumed");
  });
});
