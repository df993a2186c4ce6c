// The trade's own cases (common practice, no source): the state of the verdict, what it is headed by, what proves it and
// the sentences it is explained with.
import { type Diagnosis, diagnose } from "@core/diagnose/diagnose";
import type { Reading } from "@core/predict/reading";
import { heard, shippedEngine } from "@core/testing/shippedCircuit";
import { fusedLeads, light, look, volts } from "@core/testing/takenReadings";
import { describe, expect, test } from "@jest/globals";
import { customerVerdict } from "./customerVerdict";
import { reasonText } from "./reasonWords";
import { verdictName, verdictTitle } from "./verdictTitle";

const van = "whimbrel-four-speed";
const allRight = heard({ off: "none", "1": "normal", "2": "normal", "3": "normal", "4": "normal" });
const fourDead = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "none" });
const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });
const listen = (told: object): Reading => ({ test: "listen", key: "run", setting: "4", ...told }) as Reading;

function told(id: string, readings: readonly Reading[]): Diagnosis & { title: string; sentences: string } {
  const compiled = shippedEngine(id);
  const result = diagnose(compiled, readings);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  const { circuit } = compiled.netlist;
  const sentences = result.value.verdict.because.map((reason) => reasonText(circuit, reason)).join("\n");
  return { ...result.value, title: verdictTitle(circuit, result.value), sentences };
}

describe("the trade's verdicts", () => {
  test("a whistle that a finger over the vent hole stops", () => {
    const { verdict, title, sentences } = told(van, [
      ...allRight,
      listen({ heard: true, seen: "whistle", followsSpeed: true }),
      listen({ ventCovered: true, seen: "quiet" }),
    ]);
    expect(verdict).toMatchObject({
      state: "settled",
      replace: ["M1"],
      proof: { have: [6, 7], missing: [] },
    });
    expect(title).toBe("Blower motor M1: whistles at its vent hole");
    expect(sentences).toContain(
      "The whistle stops with a finger over the vent hole of the blower motor M1 (readings 6 and 7).",
    );
  });

  test("only the top speed, and an open link in ohms", () => {
    const { verdict, title, sentences } = told(van, [
      ...onlyTop,
      { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
      look("X5", "clean"),
      { test: "spin", at: "M1", seen: "free" },
      { test: "amps", around: "M1", key: "run", setting: "4", amps: 14.4 },
    ]);
    expect(verdict).toMatchObject({ state: "settled", replace: ["R1"], alsoCheck: [] });
    expect(verdict.proof.have).toEqual([6]);
    expect(title).toBe("Resistor pack R1: thermal link open");
    expect(sentences).toContain(
      "Measured by itself, the resistor pack R1 has the wrong resistance (reading 6).",
    );
    expect(sentences).toMatch(/Speeds 1, 2 and 3 are dead and all need/);
  });

  test("the same with a melted plug: the plug is renewed too, and the motor is still to be checked", () => {
    const { verdict, title } = told(van, [
      ...onlyTop,
      { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
      look("X5", "melted"),
    ]);
    expect(verdict.replace).toEqual(["R1", "X5"]);
    expect(verdict.alsoCheck).toEqual(["M1"]);
    expect(title).toMatch(/^Resistor pack R1 and resistor plug X5/);
  });

  test("dead, with feed and ground at the motor's plug, and no better on fused leads", () => {
    const { verdict, title, sentences } = told(van, [
      ...fourDead,
      { ...volts("X3:1", "4", 12.3), black: "X3:2" } as Reading,
      { ...fusedLeads, seen: "none" },
    ]);
    expect(verdict).toMatchObject({ state: "settled", replace: ["M1"] });
    expect(title).toMatch(/^Blower motor M1/);
    expect(sentences).toMatch(
      /Feed and ground reach the blower motor M1, and it still does not run right \(readings \d and \d\)/,
    );
  });

  test("a fuse seen blown is told as seen, and what blew it is asked for", () => {
    const { verdict, sentences } = told(van, [...fourDead, look("F7", "blown")]);
    expect(verdict.replace).toContain("F7");
    expect(verdict.alsoCheck).toEqual(["M1"]);
    expect(sentences).not.toBe("");
  });

  test("almost certain, but not proved: the proof is asked for in the same words as on the card", () => {
    const readings = [...fourDead, light("X3:1", "G1.-", "4", "bright")];
    const { verdict, next, sentences } = told(van, readings);
    expect(verdict.state).toBe("open");
    expect(verdict.payingLook).toEqual(next[0]?.test);
    expect(sentences).not.toBe("");
  });
});

describe("a verdict for the customer", () => {
  const verdict = { p: 0.8, proof: { have: [1, 2], missing: [] } } as unknown as Diagnosis["verdict"];
  test.each([
    ["settled", "The fan's motor had failed. We measured it rather than guess: 2 readings prove it."],
    [
      "best-guess",
      "This is our best guess, about 80 % sure: the fan's motor had failed. No test we can do without fitting parts would make it surer.",
    ],
    [
      "open",
      "We are still testing. So far the likeliest cause is this, about 80 % sure: the fan's motor had failed.",
    ],
  ] as const)("%s", (state, words) => {
    expect(customerVerdict({ ...verdict, state }, "The fan's motor had failed.")).toBe(words);
  });
});

test("what no test separates is named together", () => {
  const { circuit } = shippedEngine(van).netlist;
  const verdict = { replace: ["W2"], orElse: [["W3"], ["F7"]] } as unknown as Diagnosis["verdict"];
  expect(verdictName(circuit, { verdict })).toBe("wire W2, wire W3 or 30 A fuse F7");
});
