import { describe, expect, test } from "@jest/globals";
import { shippedEngine } from "../../core/testing/shippedCircuit";
import { offeredReading, ownReading, probeForm, typedNumber } from "./probeForm";

const engine = shippedEngine("whimbrel-four-speed");
const token = "0d3f6b1e-7a53-4c52-9f0e-5a4c7a1b2c3d";

function offered(look: unknown, result: Record<string, string>) {
  const form = probeForm.parse({ intent: "reading", token, look: JSON.stringify(look), ...result });
  return form.intent === "reading" ? offeredReading(engine, form) : null;
}

function own(entry: Record<string, string>) {
  const form = probeForm.parse({ intent: "own-reading", token, key: "run", setting: "2", ...entry });
  return form.intent === "own-reading" ? ownReading(engine, form) : null;
}

test.each([
  ["12.3", 12.3],
  [" 12,3 ", 12.3],
  ["0", 0],
  ["", null],
  ["twelve", null],
  ["1e999", null],
])("%p is read as %p", (text, value) => expect(typedNumber(text)).toBe(value));

describe("an offered test with its result", () => {
  const light = { test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "2" };
  const ohms = { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"] };

  test("makes a reading", () => {
    expect(offered(light, { seen: "dark" })).toEqual({ reading: { ...light, seen: "dark" } });
    expect(offered(ohms, { value: "2,2" })).toEqual({ reading: { ...ohms, ohms: 2.2 } });
    expect(offered(ohms, { value: "", noEnd: "yes" })).toEqual({ reading: { ...ohms, ohms: null } });
    // A tapped range stands for its middle, whatever is left in the field.
    expect(offered(ohms, { value: "", about: "2.17" })).toEqual({ reading: { ...ohms, ohms: 2.17 } });
    expect(offered(ohms, { value: "9", about: "2.17" })).toEqual({ reading: { ...ohms, ohms: 2.17 } });
  });

  test("says when it was taken, unless that cannot matter", () => {
    expect(offered(light, { seen: "dark", state: "failing" })).toEqual({
      reading: { ...light, seen: "dark", state: "failing" },
    });
    expect(offered(light, { seen: "dark", state: "" })).toEqual({ reading: { ...light, seen: "dark" } });
    const look = { test: "look", at: "X5" };
    expect(offered(look, { seen: "melted", state: "working" })).toEqual({
      reading: { ...look, seen: "melted" },
    });
  });

  test.each([
    ["a word the light never gives", light, { seen: "<script>" }],
    ["an empty value", { test: "volts", red: "X3:1", black: "G1.-" }, { value: "" }],
    ["a point that is not there", { ...light, probe: "X5:9" }, { seen: "dark" }],
    ["a look that is a list", [1], { seen: "dark" }],
  ])("is refused with what to change: %s", (_, look, result) => {
    expect(offered(look, result as unknown as Record<string, string>)).toHaveProperty("problem");
  });
});

test.each([
  ["99999", "amps: must be at most 10000, got 99999."],
  ["-99999", "amps: must be at least -10000, got -99999."],
  ["ten", 'amps: expected number, got "ten".'],
  ["", 'amps: expected number, got "".'],
])("%p amps are refused with what a meter can show", (value, problem) =>
  expect(offered({ test: "amps", around: "M1", key: "run", setting: "2" }, { value })).toEqual({ problem }),
);

describe("a reading of one's own", () => {
  test("takes every test", () => {
    expect(own({ test: "light", first: "X5:1", second: "G1.-", result: "bright" })).toHaveProperty(
      "reading.seen",
      "bright",
    );
    expect(own({ test: "volts", first: "X5:1", second: "G1.-", result: "11,9" })).toHaveProperty(
      "reading.volts",
      11.9,
    );
    expect(
      own({ test: "ohms", key: "off", first: "M1.+", second: "M1.-", unplugged: "X3", result: "no end" }),
    ).toHaveProperty("reading.ohms", null);
    expect(own({ test: "airflow", result: "weak" })).toHaveProperty("reading.seen", "weak");
    expect(own({ test: "look", at: "X5", result: "melted" })).toHaveProperty("reading.seen", "melted");
    expect(own({ test: "spin", at: "M1", result: "stiff" })).toHaveProperty("reading.seen", "stiff");
  });

  test("says what is wrong", () => {
    expect(own({ test: "spin", at: "R1", result: "stiff" })).toEqual({ problem: 'at: no motor "R1"' });
    expect(own({ test: "volts", first: "X5:1", second: "G1.-", result: "much" })).toHaveProperty("problem");
  });
});
