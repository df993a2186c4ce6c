import { priced } from "@core/money/estimate";
import type { EstimateLine } from "@core/money/estimateLine";
import { describe, expect, test } from "@jest/globals";
import Papa from "papaparse";
import { estimateCsv } from "./estimateCsv";
import { quantityText, typedScaled } from "./quantity";

const line = (title: string, eachMinor = 100): EstimateLine => ({
  kind: "part",
  title,
  quantityMilli: 1000,
  unit: "pc",
  eachMinor,
  taxBasisPoints: 2000,
});
const rows = (lines: readonly EstimateLine[]) =>
  Papa.parse<Record<string, string>>(
    estimateCsv(priced(lines, { rule: "half-up", at: "line", coinMinor: 1 }), "EUR"),
    { header: true, skipEmptyLines: true },
  ).data;

describe("an estimate as comma-separated text", () => {
  test("quotes where needed and reads back the same", () => {
    const [first] = rows([line('pack, "improved",\nwith leads')]);
    expect(first).toMatchObject({
      title: 'pack, "improved",\nwith leads',
      net: "1.00",
      tax: "0.20",
      taxPercent: "20",
    });
  });

  test.each(["=1+1", "+1", "@SUM(A1)", "-cmd", "\t=1"])("%p starts no formula in a spreadsheet", (title) =>
    expect(rows([line(title)])[0]?.title).toBe(`'${title}`),
  );

  test("negative money stays a number", () => {
    const [refund] = rows([line("core returned", -2550)]);
    expect(Number(refund?.net)).toBe(-25.5);
  });
});

test("quantities are written and read the same way", () => {
  expect(quantityText({ quantityMilli: 700, unit: "h" })).toBe("0.7 h");
  expect(quantityText({ quantityMilli: 2000, unit: "pc" })).toBe("2");
  expect(["0,7", "2", "1.2345", "x", "", "1.500"].map((text) => typedScaled(text, 3))).toEqual([
    700,
    2000,
    null,
    null,
    null,
    1500,
  ]);
});
