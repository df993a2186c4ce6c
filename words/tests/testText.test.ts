import { type Reading, readingSchema } from "@core/predict/reading";
import { eachReading } from "@core/testing/eachReading";
import { describe, expect, test } from "@jest/globals";
import { testWordings } from "./index";
import { setupText } from "./setupText";
import { evidenceText, resultText, testText } from "./testText";

/** What is said of each reading: what to do, and what came of it. */
const said: readonly (readonly [toDo: string, result: string])[] = [
  ["airflow on 2", "weak"],
  ["light clipped to G1.+, touch X5:2", "flickers"],
  ["volts, red on F7.in, black on G1.-", "0.0 V"],
  ["ohms from F7.in to G1.-", "no end"],
  ["ohms from F7.in to G1.-", "0.80 Ω"],
  ["clamp round W9", "18.0 A"],
  ["look at X5", "melted"],
  ["spin M1 by hand", "stiff"],
  ["listen", "rumble, follows the speed"],
  ["listen", "quiet"],
  ["listen, a finger over the motor's vent hole", "whistle"],
  ["smell at the vent", "burnt"],
  ["ask: does damp change it", "yes"],
  ["tap or wiggle M1", "starts"],
  ["load lamp in place of F7", "dark"],
  ["known-good relay in place of K3", "fixed"],
  ["current humps of M1", "uneven"],
];

test("every test has words", () => {
  expect(new Set(eachReading.map((reading) => reading.test))).toEqual(
    new Set(testWordings.map(({ name }) => name)),
  );
});

test.each(eachReading.map((reading, place) => [reading, ...(said[place] ?? ["", ""])] as const))(
  "%j: %s, %s",
  (reading, toDo, result) => {
    expect(testText(reading)).toBe(toDo);
    expect(resultText(reading)).toBe(result);
  },
);

describe("a set-up in words", () => {
  test.each([
    [{ test: "smell" }, "key off"],
    [{ test: "smell", key: "run", setting: "2" }, "key run, speed 2"],
    [{ test: "smell", key: "run", engine: true, setting: "low" }, "key run, engine running, low"],
    [{ test: "smell", unplugged: ["X5", "X3"] }, "key off, X5 off, X3 off"],
    [{ test: "smell", selectors: { S4: "high" } }, "key off, S4 on high"],
    [{ test: "smell", bridged: [["G1.+", "M1.+"]] }, "key off, G1.+ joined to M1.+"],
    [{ test: "smell", lampFor: "M1" }, "key off, lamp in place of M1"],
  ] as const)("%j is %j", (look, text) =>
    expect(setupText(readingSchema.parse({ seen: "none", ...look }))).toBe(text),
  );
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
