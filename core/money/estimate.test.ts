import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { billDifference, priced } from "./estimate";
import type { EstimateLine, Rounding } from "./estimateLine";
import { roundingRules } from "./rounding";

const line = (
  title: string,
  quantityMilli: number,
  eachMinor: number,
  more: Partial<EstimateLine> = {},
): EstimateLine => ({
  kind: "part",
  title,
  quantityMilli,
  unit: "pc",
  eachMinor,
  taxBasisPoints: 2000,
  ...more,
});
const rounding = (of: Partial<Rounding> = {}): Rounding => ({
  rule: "half-up",
  at: "line",
  coinMinor: 1,
  ...of,
});

// Worked by hand on paper, in minor units (half up):
//   0.7 h at 85.00           5950.0  net 5950          tax 20 %   1190.0
//   pack, 1 at 37.45, 10 %   3745 - 374.5 → 375 off    net 3370   tax 20 %   674.0
//   grease, 0.333 at 4.99    166.167 → 166             net 166    tax 5 %    8.3 → 8
const table = [
  line("Labour", 700, 8500, { kind: "labour", unit: "h" }),
  line("Pack", 1000, 3745, { discountBasisPoints: 1000 }),
  line("Grease", 333, 499, { kind: "consumable", taxBasisPoints: 500 }),
];

describe("the worked table", () => {
  test("line by line", () => {
    const made = priced(table, rounding());
    expect(
      made.lines.map(({ netMinor, discountMinor, taxMinor }) => [netMinor, discountMinor, taxMinor]),
    ).toEqual([
      [5950, 0, 1190],
      [3370, 375, 674],
      [166, 0, 8],
    ]);
    expect(made).toMatchObject({ netMinor: 9486, taxMinor: 1872, totalMinor: 11358, coinMinor: 0 });
    expect(made.taxes).toEqual([
      { basisPoints: 2000, onMinor: 9320, taxMinor: 1864 },
      { basisPoints: 500, onMinor: 166, taxMinor: 8 },
    ]);
  });

  test("to a coin of five the total is rounded, and the rounding is a line of its own", () => {
    expect(priced(table, rounding({ coinMinor: 5 }))).toMatchObject({ totalMinor: 11360, coinMinor: 2 });
  });

  test("three thirds of tax: 3 × 0.33 at 20 % is 0.066 each; at the line 3 × 7, at the total 20", () => {
    const thirds = ["a", "b", "c"].map((title) => line(title, 1000, 33));
    expect(priced(thirds, rounding())).toMatchObject({ taxMinor: 21 });
    const whole = priced(thirds, rounding({ at: "total" }));
    expect(whole.taxMinor).toBe(20);
    expect(whole.lines.map(({ taxMinor }) => taxMinor)).toEqual([7, 7, 6]);
  });
});

const anyLine = fc.record({
  kind: fc.constantFrom("labour", "part", "consumable"),
  title: fc.string({ minLength: 1, maxLength: 4 }),
  quantityMilli: fc.nat(20_000),
  unit: fc.constantFrom("h", "pc"),
  eachMinor: fc.integer({ min: -20_000, max: 200_000 }),
  discountBasisPoints: fc.nat(10_000),
  taxBasisPoints: fc.constantFrom(0, 500, 1750, 2000, 2555),
}) as fc.Arbitrary<EstimateLine>;

test("sums of rounded lines equal the totals under every rule, at the line and at the total, whatever the lines", () => {
  for (const rule of roundingRules)
    for (const at of ["line", "total"] as const)
      fc.assert(
        fc.property(fc.array(anyLine, { maxLength: 9 }), fc.constantFrom(1, 5, 10), (lines, coinMinor) => {
          const made = priced(lines, { rule, at, coinMinor });
          const sum = (of: (one: (typeof made.lines)[number]) => number): number =>
            made.lines.reduce((total, one) => total + of(one), 0);
          expect(sum((one) => one.netMinor)).toBe(made.netMinor);
          expect(sum((one) => one.taxMinor)).toBe(made.taxMinor);
          expect(made.taxes.reduce((total, { taxMinor }) => total + taxMinor, 0)).toBe(made.taxMinor);
          expect(made.netMinor + made.taxMinor + made.coinMinor).toBe(made.totalMinor);
          expect(Math.abs(made.totalMinor % coinMinor)).toBe(0);
          for (const one of made.lines) expect(Number.isSafeInteger(one.taxMinor)).toBe(true);
          // At the total, each rate's tax is its share of that rate's whole, within one minor unit.
          if (at === "total" && lines.every(({ eachMinor }) => eachMinor >= 0))
            for (const { basisPoints, onMinor, taxMinor } of made.taxes)
              expect(Math.abs(taxMinor - (onMinor * basisPoints) / 10_000)).toBeLessThan(1);
        }),
        { numRuns: 120, seed: 9 },
      );
});

test("a bill compared with its estimate: changed, added and removed lines", () => {
  const estimate = priced(table, rounding());
  const bill = priced(
    [
      line("Labour", 900, 8500, { kind: "labour", unit: "h" }),
      table[1] as EstimateLine,
      line("Plug", 1000, 950),
    ],
    rounding(),
  );
  expect(billDifference(estimate, bill)).toEqual([
    { title: "Labour", estimatedMinor: 5950, billedMinor: 7650, differenceMinor: 1700 },
    { title: "Grease", estimatedMinor: 166, billedMinor: null, differenceMinor: -166 },
    { title: "Plug", estimatedMinor: null, billedMinor: 950, differenceMinor: 950 },
  ]);
  expect(billDifference(estimate, estimate)).toEqual([]);
});
