import { describe, expect, test } from "@jest/globals";
import { rangeWords } from "./rangeWords";

describe("a display's range in a word", () => {
  test.each([
    ["volts", 0, 0.1, 12, "nothing"],
    ["volts", -0.1, 0.3, 12, "nothing"],
    ["volts", 11.4, 12.4, 12, "battery voltage"],
    ["volts", -12.4, -11.8, 12, "battery voltage"],
    ["volts", 5.6, 6.8, 12, "about half"],
    ["volts", 1.2, 4, 12, "less than half"],
    ["volts", 7.8, 9.1, 12, "more than half"],
    ["volts", 2, 11, 12, null],
    ["amps", 0, 0.2, 15, "no current"],
    ["amps", 13.8, 16, 15, "as it should be"],
    ["amps", 4, 9, 15, "too low"],
    ["amps", 19, 24, 15, "too high"],
    ["amps", 9, 24, 15, null],
    ["ohms", Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, 2.4, "open"],
    ["ohms", 2.2, 2.5, 2.4, "as it should be"],
    ["ohms", 3.6, 9, 2.4, "too high"],
    ["ohms", 0.1, 0.4, Number.POSITIVE_INFINITY, "shorted"],
  ] as const)("%s from %d to %d where a sound vehicle shows %d: %p", (name, low, high, sound, words) => {
    expect(rangeWords(name, { low, high }, sound, 12.5)).toBe(words);
  });
});
