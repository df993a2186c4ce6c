import { type Reading, readingSchema } from "@core/predict/reading";
import { eachReading } from "@core/testing/eachReading";
import { describe, expect, test } from "@jest/globals";
import { testWordings } from "./index";
import { setupText } from "./setupText";
import { evidenceText, resultText, testText } from "./testText";

/** The texts of each reading: what to do, and the result. */
const said: readonly (readonly [toDo: string, result: string])[] = [
  ["air on speed 2", "weak"],
  ["test light clipped to G1.+, touching X5:2", "flickers"],
  ["volts, red on F7.in, black on G1.-", "0.0 V"],
  ["ohms from F7.in to G1.-", "OL (open)"],
  ["ohms from F7.in to G1.-", "0.80 Ω"],
  ["clamp meter on W9", "18.0 A"],
  ["inspect X5", "melted"],
  ["spin M1 by hand", "stiff"],
  ["listen to the blower", "rumble, follows the speed"],
  ["listen to the blower", "quiet"],
  ["listen with a finger over the motor's vent hole", "whistle"],
  ["smell at the vent", "burnt"],
  ["customer asked: does it change in damp weather", "yes"],
  ["tap or wiggle M1", "starts"],
  ["load lamp in place of F7", "dark"],
  ["known-good relay in place of K3", "fixed"],
  ["current ripple of M1", "uneven"],
];

test("every test has words", () => {
  expect(new Set(eachReading.map((reading) => reading.test))).toEqual(
    new Set(testWordings.map(({ name }) => name)),
  );
});

test.each(eachReading.map((reading, place) => [reading, ...(said[place] ?? ["", ""])] as const))(
  "%j: %s, %s",
  (reading, toDo, result) => {
    expect(testText(null, reading)).toBe(toDo);
    expect(resultText(reading)).toBe(result);
  },
);

describe("a set-up in words", () => {
  test.each([
    [{ test: "smell" }, "key off"],
    [{ test: "smell", key: "run", setting: "2" }, "key run, speed 2"],
    [{ test: "smell", key: "run", engine: true, setting: "low" }, "key run, engine running, low"],
    [{ test: "smell", unplugged: ["X5", "X3"] }, "key off, X5 unplugged, X3 unplugged"],
    [{ test: "smell", selectors: { S4: "high" } }, "key off, switch S4 at high"],
    [{ test: "smell", bridged: [["G1.+", "M1.+"]] }, "key off, G1.+ joined to M1.+"],
    [{ test: "smell", lampFor: "M1" }, "key off, load lamp in place of M1"],
  ] as const)("%j is %j", (look, text) =>
    expect(setupText(null, readingSchema.parse({ seen: "none", ...look }))).toBe(text),
  );
});

describe("evidence in words", () => {
  test.each<[Reading, string]>([
    [{ test: "airflow", heard: true, key: "run", setting: "4", seen: "normal" }, "air on speed 4"],
    // This was heard too, but not about one speed: without the set-up it would contradict the line above.
    [{ test: "airflow", heard: true, key: "off", setting: "4", seen: "none" }, "air on speed 4, key off"],
    [
      { test: "airflow", heard: true, key: "run", setting: "off", selectors: { S4: "low" }, seen: "weak" },
      "air on switch S4 at low",
    ],
    [{ test: "airflow", key: "run", setting: "4", seen: "normal" }, "air on speed 4"],
    [
      { test: "history", heard: true, of: "damp", seen: "yes" },
      "customer asked: does it change in damp weather",
    ],
    [
      { test: "light", probe: "X5:2", clip: "G1.+", key: "run", setting: "2", seen: "dark" },
      "test light clipped to G1.+, touching X5:2, key run, speed 2",
    ],
  ])("%j is %j", (reading, text) => expect(evidenceText(null, reading)).toBe(text));
});
