import { describe, expect, test } from "@jest/globals";
import type { Reading } from "../predict/reading";
import { heard, shippedCircuit } from "../testing/shippedCircuit";
import { symptomOf } from "./symptom";

const circuit = shippedCircuit("whimbrel-four-speed");
const air = (words: Parameters<typeof heard>[0]): Reading[] => heard(words);

describe("the symptom of a complaint", () => {
  test.each([
    ["dead", air({ "1": "none", "2": "none", "3": "none", "4": "none" })],
    ["some-speeds", air({ "1": "none", "2": "none", "3": "none", "4": "normal" })],
    ["weak", air({ "1": "weak", "4": "normal" })],
    ["other", air({ "1": "normal", "4": "normal" })],
    ["other", []],
  ] as const)("is %s", (symptom, readings) => {
    expect(symptomOf(circuit, readings)).toBe(symptom);
  });

  test("air with the key out or the switch off is `never-stops`, whatever the speeds do", () => {
    const dead = air({ "1": "none" });
    expect(symptomOf(circuit, [...dead, { test: "airflow", key: "off", setting: "4", seen: "weak" }])).toBe(
      "never-stops",
    );
    expect(symptomOf(circuit, [{ test: "airflow", key: "run", setting: "off", seen: "normal" }])).toBe(
      "never-stops",
    );
  });

  test("a noise alone is a noise; together with a dead speed it is not the reason for the visit", () => {
    const squeal: Reading = { test: "listen", key: "run", setting: "4", seen: "squeal" };
    expect(symptomOf(circuit, [squeal])).toBe("noise");
    expect(symptomOf(circuit, [squeal, ...air({ "1": "none" })])).toBe("some-speeds");
  });
});
