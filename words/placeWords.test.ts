import type { PlaceReading } from "@core/wiring/placeReading";
import type { PlaceTest } from "@core/wiring/placeTest";
import { describe, expect, test } from "@jest/globals";
import {
  placeEvidenceText,
  placeOutcomeText,
  placeResultText,
  placeTestHow,
  placeTestText,
} from "./placeWords";

describe("a test by place", () => {
  const tests: readonly (readonly [PlaceTest, string])[] = [
    [
      { test: "light", at: "motor-plug", clip: "ground", key: "run", setting: "2" },
      "test light at the blower motor plug, clip on ground",
    ],
    [{ test: "light", at: "fuses", clip: "ground" }, "test light on the blower fuses"],
    [
      { test: "volts", at: "pack-plug", red: "feed" },
      "volts at the resistor pack plug, red on battery positive",
    ],
    [
      { test: "volts", red: "motor-plug:a", black: "motor-plug:b" },
      "volts from pin a of the blower motor plug to pin b of the blower motor plug",
    ],
    [{ test: "volts", red: "feed", black: "ground", key: "run", setting: "4" }, "volts across the battery"],
    [{ test: "ohms", at: "pack-plug", from: "b" }, "ohms into the resistor pack plug, from pin b"],
    [{ test: "amps", around: "motor-plug:a" }, "clamp meter on the wire at pin a of the blower motor plug"],
    [{ test: "airflow", leads: true }, "air with the motor on fused leads"],
    [{ test: "airflow", unplugged: "module-plug" }, "air with the control module plug unplugged"],
    [{ test: "airflow", key: "run", setting: "0" }, "air with the blower off"],
    [{ test: "tap", at: "motor" }, "tap the blower motor"],
    [{ test: "tap", at: "motor-plug" }, "wiggle the blower motor plug"],
    [{ test: "swap", at: "relay" }, "known-good relay in place of the blower relay"],
  ];
  test.each(tests)("%j is called %s", (own, words) => expect(placeTestText(own)).toBe(words));

  test("says the key and the speed, and how a plug is read", () => {
    expect(
      placeTestHow({ test: "volts", at: "motor-plug", black: "ground", key: "run", setting: "0" }),
    ).toMatch(/^Key on, blower off\. Leave the plug on/);
    expect(placeTestHow({ test: "airflow", key: "run", setting: "3" })).toBe(
      "Key on, speed 3. Feel the air at the vents.",
    );
    expect(placeTestHow({ test: "ohms", at: "switch-plug", from: "c", key: "off", setting: "3" })).toMatch(
      /^Key off, speed 3\. Pull the plug/,
    );
    expect(placeTestHow({ test: "volts", red: "feed", black: "ground", key: "run", setting: "4" })).toMatch(
      /^Key on, speed 4\. Red lead on the battery's positive post/,
    );
  });
});

describe("a reading by place", () => {
  const readings: readonly (readonly [PlaceReading, string, string])[] = [
    [
      {
        test: "light",
        at: "motor-plug",
        clip: "feed",
        key: "run",
        setting: "4",
        seen: { b: "dark", a: "bright" },
      },
      "test light at the blower motor plug, clip on battery positive, key on, speed 4",
      "a bright, b dark",
    ],
    [
      { test: "light", at: "fuses", clip: "ground", key: "run", setting: "4", seen: { a: "blown" } },
      "test light on the blower fuses, key on, speed 4",
      "a one point lit",
    ],
    [
      { test: "ohms", at: "pack-plug", from: "a", ohms: { b: null, c: 1.25 } },
      "ohms into the resistor pack plug, from pin a",
      "b OL (open), c 1.25 Ω",
    ],
    [{ test: "swap", at: "relay", absent: true }, "blower relay", "there is none"],
    [
      { test: "airflow", key: "run", setting: "1", heard: true, seen: "weak", pattern: "only-hot" },
      "air at speed 1",
      "weak, only hot",
    ],
    [
      { test: "listen", key: "run", setting: "4", seen: "squeal", followsSpeed: true },
      "listen to the blower, key on, speed 4",
      "squeal, follows the speed",
    ],
  ];
  test.each(readings)("%j", (reading, what, result) => {
    expect(placeEvidenceText(reading)).toBe(what);
    expect(placeResultText(reading)).toBe(result);
  });

  test("an outcome names what is lit on a fuse, and what a vehicle does not have", () => {
    const fuses: PlaceTest = { test: "light", at: "fuses", clip: "ground" };
    expect(placeOutcomeText(fuses, "bright/bright, bright/dark")).toBe("both lit, one lit");
    expect(placeOutcomeText(fuses, "absent")).toBe("the vehicle has none");
    expect(placeOutcomeText({ test: "airflow", key: "run" }, "none")).toBe("nothing");
  });
});
