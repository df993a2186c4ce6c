import type { PlaceTest } from "@core/wiring/placeTest";
import { describe, expect, test } from "@jest/globals";
import { seenReading } from "./seenForm";

const form = (test: PlaceTest, fields: Record<string, string>) =>
  seenReading({ test: JSON.stringify(test), ...fields });

describe("a reading from the form", () => {
  const light: PlaceTest = { test: "light", at: "motor-plug", clip: "ground", key: "run", setting: "2" };

  test("a light at each pin, by label; the state of the symptom if somebody said it", () => {
    expect(form(light, { "pin.a": "bright", "pin.b": "dark", state: "failing" })).toEqual({
      reading: { ...light, seen: { a: "bright", b: "dark" }, state: "failing" },
    });
  });

  test("figures with a decimal comma, OL only in ohms, one figure for two leads", () => {
    const ohms: PlaceTest = { test: "ohms", at: "pack-plug", from: "a" };
    expect(form(ohms, { "pin.b": "1,25", "pin.c": "ol" })).toEqual({
      reading: { ...ohms, ohms: { b: 1.25, c: null } },
    });
    const volts: PlaceTest = { test: "volts", red: "motor-plug:a", black: "motor-plug:b", key: "run" };
    expect(form(volts, { value: "12.4" })).toEqual({ reading: { ...volts, volts: 12.4 } });
    expect(form(volts, { value: "OL" })).toEqual({
      problem: "“OL” is not a figure. Enter one such as 12.3.",
    });
    expect(form(volts, { value: "" })).toEqual({ problem: "Enter what the meter reads." });
    expect(form(ohms, { "pin.b": "1,25", "pin.c": "high" })).toEqual({
      problem: "“high” is not a figure. Enter one such as 12.3, or OL.",
    });
  });

  test("wires by size, with a colour if somebody saw it", () => {
    const wires: PlaceTest = { test: "wires", at: "pack-plug" };
    expect(form(wires, { "size.a": "thick", "size.b": "thin", "pin.b": "GN" })).toEqual({
      reading: { ...wires, seen: { a: "thick", b: "GN thin" } },
    });
  });

  test("one word, a noise that follows the speed, and a place the vehicle does not have", () => {
    expect(form({ test: "spin", at: "motor" }, { seen: "stiff" })).toEqual({
      reading: { test: "spin", at: "motor", seen: "stiff" },
    });
    expect(
      form({ test: "listen", key: "run", setting: "4" }, { seen: "squeal", followsSpeed: "yes" }),
    ).toEqual({
      reading: { test: "listen", key: "run", setting: "4", seen: "squeal", followsSpeed: true },
    });
    expect(form({ test: "swap", at: "relay" }, { absent: "yes" })).toEqual({
      reading: { test: "swap", at: "relay", absent: true },
    });
  });

  test("what is no result of the test is refused, and so is a test that is none", () => {
    expect(form(light, { "pin.a": "loud" })).toEqual({ problem: "Choose a result for every pin." });
    expect(form(light, {})).toEqual({ problem: "Choose a result for every pin." });
    expect(seenReading({ test: "{" })).toHaveProperty("problem");
    expect(seenReading({ test: '{"test":"guess"}', seen: "yes" })).toHaveProperty("problem");
  });
});
