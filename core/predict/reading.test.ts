import { describe, expect, test } from "@jest/globals";
import { type Reading, readingSchema, resultOf, testKey, testNames, testOf } from "./reading";
import { evidenceText, resultText, setupText, testText } from "./readingText";

const points = { red: "F7.in", black: "G1.-" };
/** One reading of each test, its result in words, and what to do. */
const each: readonly (readonly [Reading, string, string])[] = [
  [{ test: "airflow", key: "run", setting: "2", seen: "weak" }, "weak", "airflow on 2"],
  [
    { test: "light", probe: "X5:2", clip: "G1.+", seen: "flickers" },
    "flickers",
    "light clipped to G1.+, touch X5:2",
  ],
  [{ test: "volts", ...points, volts: -0.01 }, "0.0 V", "volts, red on F7.in, black on G1.-"],
  [{ test: "ohms", ...points, ohms: null }, "no end", "ohms from F7.in to G1.-"],
  [{ test: "ohms", ...points, ohms: 0.8 }, "0.80 Ω", "ohms from F7.in to G1.-"],
  [{ test: "amps", around: "W9", amps: 17.96 }, "18.0 A", "clamp round W9"],
  [{ test: "look", at: "X5", seen: "melted" }, "melted", "look at X5"],
  [{ test: "spin", at: "M1", seen: "stiff" }, "stiff", "spin M1 by hand"],
  [{ test: "listen", seen: "rumble", followsSpeed: true }, "rumble, follows the speed", "listen"],
  [{ test: "listen", seen: "quiet", followsSpeed: false }, "quiet", "listen"],
  [
    { test: "listen", ventCovered: true, seen: "whistle" },
    "whistle",
    "listen, a finger over the motor's vent hole",
  ],
  [{ test: "smell", seen: "burnt" }, "burnt", "smell at the vent"],
  [{ test: "history", of: "damp", seen: "yes" }, "yes", "ask: does damp change it"],
  [{ test: "tap", at: "M1", seen: "starts" }, "starts", "tap or wiggle M1"],
  [{ test: "lampload", lampFor: "F7", seen: "dark" }, "dark", "load lamp in place of F7"],
  [{ test: "swap", at: "K3", seen: "fixed" }, "fixed", "known-good relay in place of K3"],
  [{ test: "ripple", at: "M1", seen: "uneven" }, "uneven", "current humps of M1"],
];

describe("readings", () => {
  test("there is one here of every test", () => {
    expect(new Set(each.map(([reading]) => reading.test))).toEqual(new Set(testNames));
  });

  test.each(each)("%j says %j", (reading, result, look) => {
    expect(readingSchema.parse(reading)).toEqual(reading);
    expect(resultText(reading)).toBe(result);
    expect(testText(reading)).toBe(look);
  });

  test.each(each)("the look of %j is the reading without what came of it", (reading) => {
    const look = testOf({ ...reading, heard: true });
    for (const told of ["seen", "volts", "ohms", "amps", "followsSpeed", "heard"])
      expect(look).not.toHaveProperty(told);
    expect(look.test).toBe(reading.test);
    expect(testKey(look)).toBe(testKey(testOf(reading)));
  });

  test("two readings are the same look whatever order their keys came in, and not in another set-up", () => {
    const one = testKey({ test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "2" });
    expect(testKey({ setting: "2", key: "run", clip: "G1.+", probe: "X5:2", test: "light" })).toBe(one);
    expect(testKey({ test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "3" })).not.toBe(one);
  });

  test("a result is a word, a number, or null where the meter showed no end", () => {
    expect(each.slice(0, 4).map(([reading]) => resultOf(reading))).toEqual(["weak", "flickers", -0.01, null]);
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

describe("a set-up in words", () => {
  test.each([
    [{ test: "smell" }, "key off"],
    [{ test: "smell", key: "run", setting: "2" }, "key run, speed 2"],
    [{ test: "smell", key: "run", engine: true, setting: "low" }, "key run, engine running, low"],
    [{ test: "smell", unplugged: ["X5", "X3"] }, "key off, X5 off, X3 off"],
    [{ test: "smell", selectors: { S4: "high" } }, "key off, S4 on high"],
    [{ test: "smell", bridged: [["G1.+", "M1.+"]] }, "key off, G1.+ joined to M1.+"],
    [{ test: "smell", lampFor: "M1" }, "key off, lamp in place of M1"],
  ] as const)("%j is %j", (look, text) => expect(setupText(look as never)).toBe(text));
});

describe("evidence in words", () => {
  test.each<[Reading, string]>([
    [{ test: "airflow", heard: true, key: "run", setting: "4", seen: "normal" }, "airflow on 4"],
    // Heard too, but not of a running blower's own speed: without the set-up it would contradict the line above.
    [
      { test: "airflow", heard: true, key: "off", setting: "4", seen: "none" },
      "airflow on 4, key off, speed 4",
    ],
    [
      { test: "airflow", heard: true, key: "run", setting: "off", selectors: { S4: "low" }, seen: "weak" },
      "airflow on off, key run, off, S4 on low",
    ],
    [{ test: "airflow", key: "run", setting: "4", seen: "normal" }, "airflow on 4, key run, speed 4"],
    [{ test: "history", heard: true, of: "damp", seen: "yes" }, "ask: does damp change it"],
    [
      { test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "2", seen: "dark" },
      "light clipped to G1.+, touch X5:2, key run, speed 2",
    ],
  ])("%j is %j", (reading, text) => expect(evidenceText(reading)).toBe(text));
});
