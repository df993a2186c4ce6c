import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  baseFigure,
  figureIn,
  gaugeMm2,
  gaugeOf,
  inUnit,
  type QuantityName,
  type Unit,
  unitNamed,
  units,
} from "./quantity";

const unit = (quantity: QuantityName, name: string): Unit => unitNamed(quantity, name) as Unit;
const quantities = Object.keys(units) as QuantityName[];

describe("definitions", () => {
  // NIST SP 811, appendix B.8, from memory: 1 ft = 0.3048 m and 1 in = 25.4 mm exactly; 212 °F = 100 °C, −40 is both.
  test.each([
    ["length", "1", "ft", "m", "0.3048"],
    ["length", "1", "in", "cm", "2.54"],
    ["length", "12", "in", "ft", "1"],
    ["temperature", "212", "F", "C", "100"],
    ["temperature", "-40", "F", "C", "-40"],
    ["temperature", "0", "C", "K", "273.15"],
    ["temperature", "98.6", "F", "C", "37"],
    ["voltage", "13.4", "mV", "V", "0.0134"],
    ["resistance", "0.47", "Mohm", "kohm", "470"],
    ["area", "1", "in2", "mm2", "645.16"],
    ["time", "90", "min", "h", "1.5"],
    ["turning", "3000", "rpm", "Hz", "50"],
  ] as const)("%s: %s %s in %s is %s", (quantity, figure, from, to, out) =>
    expect(inUnit(figure, unit(quantity, from), unit(quantity, to))).toBe(out),
  );

  // ASTM B258 (from memory): cross-sections of solid AWG wires in mm².
  test.each([
    [10, 5.26],
    [12, 3.31],
    [14, 2.08],
    [16, 1.31],
    [18, 0.823],
    [20, 0.518],
    [0, 53.5],
    [-1, 67.4],
  ])("AWG %p is %p mm²", (awg, mm2) => {
    expect(Math.abs(gaugeMm2(awg) / mm2 - 1)).toBeLessThan(0.002);
    expect(gaugeOf(gaugeMm2(awg))).toBeCloseTo(awg, 9);
  });
});

describe("converting there and back", () => {
  test.each(quantities)("%s: every figure of up to twelve digits returns as it was typed", (quantity) => {
    const own: readonly Unit[] = units[quantity];
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 999_999_999_999 }),
        fc.integer({ min: 0, max: 9 }),
        fc.constantFrom(...own),
        fc.constantFrom(...own),
        (digits, places, from, to) => {
          // A gauge is a small whole number, and a wire's cross-section has few digits.
          const wire = "gauge" in from || ("gauge" in to && from.id !== to.id);
          const typed =
            "gauge" in from
              ? figureText((digits % 40) + 1, 0)
              : wire
                ? figureText((digits % 99_999) + 1, 3)
                : figureText(digits, places);
          const there = inUnit(typed, from, to) as string;
          expect(inUnit(there, to, from)).toBe(typed);
        },
      ),
      { numRuns: 400 },
    );
  });

  test("through a third unit too", () => {
    const [metre, foot, inch] = [unit("length", "m"), unit("length", "ft"), unit("length", "in")];
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99_999_999 }), (digits) => {
        const typed = figureText(digits, 3);
        const feet = inUnit(typed, metre, foot) as string;
        const inches = inUnit(feet, foot, inch) as string;
        expect(inUnit(inches, inch, metre)).toBe(typed);
      }),
    );
  });
});

/** A figure with a given number of decimal places, written without trailing zeros. */
function figureText(digits: number, places: number): string {
  const text = String(digits).padStart(places + 1, "0");
  const [whole, part] = [text.slice(0, text.length - places), places === 0 ? "" : text.slice(-places)];
  const short = part.replace(/0+$/, "");
  return short === "" ? whole : `${whole}.${short}`;
}

describe("typed figures", () => {
  test("a decimal comma, a power, a bare sign", () => {
    const metre = unit("length", "m");
    expect(baseFigure("2,5", metre)).toBe(2.5);
    expect(baseFigure(" 1e-3 ", metre)).toBe(0.001);
    expect(baseFigure(".5", metre)).toBe(0.5);
    for (const none of ["", "-", "3 m", "1.2.3", "ten", "0x10"]) expect(baseFigure(none, metre)).toBeNull();
  });

  test("units by their sign or as typed; milli and mega are different", () => {
    expect(unitNamed("resistance", "mohm")?.id).toBe("mohm");
    expect(unitNamed("resistance", "Mohm")?.id).toBe("Mohm");
    expect(unitNamed("resistance", "Ω")?.id).toBe("ohm");
    expect(unitNamed("area", "mm²")?.id).toBe("mm2");
    expect(unitNamed("area", "awg")?.id).toBe("awg");
    expect(unitNamed("temperature", "°f")?.id).toBe("F");
    expect(unitNamed("length", "parsec")).toBeNull();
    expect(unitNamed("length", "")).toBeNull();
  });

  test("figures as they are read", () => {
    expect(figureIn(0.00123456, unit("resistance", "mohm"))).toBe("1.235");
    expect(figureIn(0.3048, unit("length", "ft"))).toBe("1");
    expect(figureIn(1234567, unit("resistance", "ohm"))).toBe("1234567");
    expect(figureIn(Number.POSITIVE_INFINITY, unit("resistance", "ohm"))).toBe("infinite");
    expect(figureIn(0, unit("voltage", "V"))).toBe("0");
  });
});
