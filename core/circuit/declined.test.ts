import { describe, expect, test } from "@jest/globals";
import { problemText } from "../problem/problem";
import { shippedCircuit, shippedIds, shippedJson } from "../testing/shippedCircuit";
import type { Circuit } from "./circuit";
import { busPoints, declinedParts } from "./declined";
import { parseCircuit } from "./parseCircuit";

/** A shipped circuit with one flag set on one part. */
function marked(id: string, part: string, mark: Record<string, unknown>): Circuit {
  const json = shippedJson(id);
  const parts = json.parts as Record<string, unknown>[];
  json.parts = parts.map((own) => (own.id === part ? { ...own, ...mark } : own));
  const parsed = parseCircuit(json);
  if (!parsed.ok) throw new Error(parsed.problems.map(problemText).join("; "));
  return parsed.value;
}

describe("parts whose inside is left to the maker's procedure", () => {
  test.each(shippedIds)("%s has none", (id) => {
    expect(declinedParts(shippedCircuit(id))).toEqual([]);
    expect(busPoints(shippedCircuit(id)).size).toBe(0);
  });

  test("a module on a data bus lists what is still tested, and its command points have no volts to read", () => {
    const circuit = marked("whimbrel-pwm-low", "A1", { bus: true });
    const [declined, ...more] = declinedParts(circuit);
    expect(more).toEqual([]);
    expect(declined?.part).toBe("A1");
    expect(declined?.reason).toBe("data-bus");
    const points = busPoints(circuit);
    expect(points).toContain("A1.cmd");
    const pins = circuit.connectors.flatMap(({ id, pins: own }) =>
      Object.entries(own).flatMap(([pin, terminal]) => (terminal === "A1.cmd" ? [`${id}:${pin}`] : [])),
    );
    expect(pins.length).toBeGreaterThan(0);
    for (const pin of pins) expect(points).toContain(pin);
    for (const { id, from, to } of circuit.wires)
      if (from === "A1.cmd" || to === "A1.cmd") expect(points).toContain(`${id}/from`);
    expect(points).not.toContain("A1.30");
  });

  test("a brushless motor is named, and has no bus points", () => {
    const circuit = marked("whimbrel-pwm-low", "M1", { brushless: true });
    expect(declinedParts(circuit).map(({ part }) => part)).toEqual(["M1"]);
    expect(busPoints(circuit).size).toBe(0);
  });

  test.each([
    ["a bus on a fuse", "F1", { bus: true }],
    ["a brushless relay", "K3", { brushless: true }],
    ["a bus that is a word", "M1", { brushless: "yes" }],
  ])("%s is refused", (_, part, mark) => {
    expect(() => marked("whimbrel-four-speed", part, mark)).toThrow(/parts\.\d+/);
  });
});
