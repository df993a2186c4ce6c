import { describe, expect, test } from "@jest/globals";
import { eachReading } from "../testing/eachReading";
import { observations } from "./observations/index";
import { readingSchema, resultOf, testKey, testOf } from "./reading";

const points = { red: "F7.in", black: "G1.-" };

describe("readings", () => {
  test("there is one here for every test", () => {
    expect(new Set(eachReading.map(({ test: name }) => name))).toEqual(
      new Set(observations.map(({ name }) => name)),
    );
  });

  test.each(eachReading)("%j is accepted", (reading) => {
    expect(readingSchema.parse(reading)).toEqual(reading);
  });

  test.each(eachReading)("the test of %j is the reading without its result", (reading) => {
    const look = testOf({ ...reading, heard: true });
    for (const told of ["seen", "volts", "ohms", "amps", "followsSpeed", "heard"])
      expect(look).not.toHaveProperty(told);
    expect(look.test).toBe(reading.test);
    expect(testKey(look)).toBe(testKey(testOf(reading)));
  });

  test("two readings are the same test in any order of keys, and not in another set-up", () => {
    const one = testKey({ test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "2" });
    expect(testKey({ setting: "2", key: "run", clip: "G1.+", probe: "X5:2", test: "light" })).toBe(one);
    expect(testKey({ test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "3" })).not.toBe(one);
  });

  test("a result is a word, a number, or null for OL (open)", () => {
    expect(eachReading.slice(0, 4).map(resultOf)).toEqual(["weak", "flickers", -0.01, null]);
  });

  test.each([
    [{ test: "volts", ...points, volts: Number.NaN }],
    [{ test: "volts", ...points, volts: 1e6 }],
    [{ test: "ohms", ...points, ohms: -1 }],
    [{ test: "ohms", ...points, ohms: Number.POSITIVE_INFINITY }],
    [{ test: "light", probe: "", clip: "G1.+", seen: "dark" }],
    [{ test: "light", probe: "x".repeat(65), clip: "G1.+", seen: "dark" }],
    [{ test: "look", at: "X5", seen: "<script>" }],
    [{ test: "smell", seen: "none", nose: "long" }],
    [{ test: "airflow", key: "start", seen: "none" }],
  ])("%j is refused", (input) => expect(readingSchema.safeParse(input).success).toBe(false));
});
