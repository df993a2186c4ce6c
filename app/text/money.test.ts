import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { amountText, minorDigits, priceText, typedMinor } from "./money";

// Minor units of ISO 4217, from memory: two for EUR, none for JPY, three for KWD; XXX is no currency.
test.each([
  ["EUR", 2],
  ["JPY", 0],
  ["KWD", 3],
  ["XXX", 2],
])("%s has %d digits after its point", (currency, digits) => expect(minorDigits(currency)).toBe(digits));

test.each([
  [0, "EUR", "0.00"],
  [5, "EUR", "0.05"],
  [123456, "EUR", "1234.56"],
  [-45, "EUR", "−0.45"],
  [123, "JPY", "123"],
  [1234, "KWD", "1.234"],
])("%d minor units of %s are %s", (minor, currency, text) => expect(amountText(minor, currency)).toBe(text));

test("a code stands before the amount if the shop has one", () => {
  expect(priceText(950, "EUR")).toBe("EUR 9.50");
  expect(priceText(950, "XXX")).toBe("9.50");
});

describe("a typed amount", () => {
  test.each([
    ["12", 1200],
    ["12,5", 1250],
    [" 0.05 ", 5],
    ["-3.20", -320],
    ["−3.20", -320],
  ])("%p is %d", (text, minor) => expect(typedMinor(text, "EUR")).toBe(minor));

  test.each(["", "ninety", "1.005", "1.2.3", "1e3", "12 EUR", "1234567890"])("%p is none", (text) =>
    expect(typedMinor(text, "EUR")).toBeNull(),
  );

  test("reads back exactly what was written", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.constantFrom("EUR", "JPY", "KWD"),
        (minor, currency) => {
          expect(typedMinor(amountText(minor, currency), currency)).toBe(minor === 0 ? 0 : minor);
        },
      ),
      { numRuns: 300, seed: 6 },
    );
  });
});
