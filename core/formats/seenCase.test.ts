import { describe, expect, test } from "@jest/globals";
import { problemText } from "../problem/problem";
import { isSeenCase, parseSeenCase } from "./seenCase";

const bare = { format: "airway-case", version: 1, seen: { speeds: 4 }, readings: [] };
const light = {
  test: "light",
  at: "motor-plug",
  clip: "ground",
  key: "run",
  setting: "0",
  seen: { a: "bright" },
};

test("a case is one without a circuit if it says what was seen and names no circuit", () => {
  expect(isSeenCase(bare)).toBe(true);
  for (const other of [{ ...bare, circuitId: "x" }, { ...bare, circuit: {} }, { readings: [] }, null, "seen"])
    expect(isSeenCase(other)).toBe(false);
});

test.each([
  ["a lamp at every pin of a plug", light],
  [
    "fuses by slot",
    { test: "light", at: "fuses", clip: "ground", key: "run", seen: { a: "good", b: "dead" } },
  ],
  ["volts of a plug", { test: "volts", at: "pack-plug", black: "ground", volts: { a: 12.1, b: 0.1 } }],
  ["volts against feed", { test: "volts", at: "pack-plug", red: "feed", volts: { a: 12.1 } }],
  ["volts between two pins", { test: "volts", red: "motor-plug:a", black: "motor-plug:b", volts: 12.4 }],
  ["ohms from a pin", { test: "ohms", at: "pack-plug", from: "a", ohms: { b: 2.2, c: null } }],
  ["amps of a wire", { test: "amps", around: "motor-plug:a", amps: 17 }],
  ["leads at the motor", { test: "airflow", leads: true, seen: "normal" }],
  ["wires", { test: "wires", at: "pack-plug", seen: { a: "BK/YE thick", b: "RD thin" } }],
  ["something the car does not have", { test: "swap", at: "relay", absent: true }],
])("%s is read as it is", (_, reading) => {
  const parsed = parseSeenCase({ ...bare, readings: [reading] });
  expect(parsed.ok ? parsed.value.readings : parsed.problems).toEqual([reading]);
});

describe("what does not fit is refused by its place", () => {
  test.each<[string, object, RegExp]>([
    ["a word that is none", { ...light, seen: { a: "glowing" } }, /^readings\.0\.seen\.a: expected "bright"/],
    ["a place that is none", { ...light, at: "boot" }, /^readings\.0\.at: /],
    ["a test that is none", { test: "taste" }, /^readings\.0\.test: expected one of airflow, light, /],
    ["a label that is none", { ...light, seen: { "A 1": "dark" } }, /^readings\.0\.seen/],
    ["a setting by name", { ...light, setting: "high" }, /^readings\.0\.setting: a setting is a number/],
    [
      "a pin without its plug",
      { test: "volts", red: "a", black: "ground", volts: 1 },
      /^readings\.0\.red: expected ground, feed/,
    ],
  ])("%s", (_, reading, message) => {
    const parsed = parseSeenCase({ ...bare, readings: [reading] });
    expect(parsed.ok ? "" : parsed.problems.map(problemText).join("; ")).toMatch(message);
  });

  test("a vehicle that cannot be", () => {
    const parsed = parseSeenCase({ ...bare, seen: { speeds: 0 } });
    expect(parsed.ok ? "" : parsed.problems.map(problemText).join()).toMatch(
      /^seen\.speeds: must be at least 1/,
    );
  });
});
