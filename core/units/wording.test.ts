import { expect, test } from "@jest/globals";
import { listed, minutesText, oddsText, ohmsText, percent, tenthsText, voltsText } from "./wording";

test.each([
  [[], ""],
  [["a"], "a"],
  [["a", "b"], "a and b"],
  [["a", "b", "c"], "a, b and c"],
])("%p is joined as in a sentence", (words, text) => expect(listed(words)).toBe(text));

test.each([
  [0, "0 %"],
  [0.001, "under 1 %"],
  [0.714, "71 %"],
  [0.999, "over 99 %"],
  [1, "100 %"],
])("%p is %p", (p, text) => expect(percent(p)).toBe(text));

test.each([
  [0.2, "½ min"],
  [0.5, "½ min"],
  [1, "1 min"],
  [2.4, "2½ min"],
  [12, "12 min"],
])("%p minutes are %p", (minutes, text) => expect(minutesText(minutes)).toBe(text));

test("volts, ohms and odds have a sensible number of digits", () => {
  expect(voltsText(-0.001)).toBe("0.0 V");
  expect(voltsText(12.345)).toBe("12.3 V");
  expect([0.82, 85, 47000, 3e6, null].map(ohmsText)).toEqual([
    "0.82 Ω",
    "85 Ω",
    "47.0 kΩ",
    "3.0 MΩ",
    "OL (open)",
  ]);
  expect([1.5, 12.2, 47, 5000].map(oddsText)).toEqual([
    "1.5 to 1",
    "12 to 1",
    "50 to 1",
    "1000 to 1 or more",
  ]);
});

test.each([
  [0, "0 min"],
  [3.26, "3.3 min"],
  [4, "4 min"],
])("%d minutes to a tenth are %s", (minutes, text) => expect(tenthsText(minutes)).toBe(text));
