import { describe, expect, test } from "@jest/globals";
import { lampAmps, lampSiemens, lampVolts, testLight } from "./tungstenLamp";

describe("a 12 V 3 W test light", () => {
  test("draws its rated current at rated volts", () => {
    expect(lampAmps(testLight, 12)).toBeCloseTo(0.25, 12);
  });

  // Re-rating exponent 0.55 for current: incandescent lamp handbooks, from memory.
  test("re-rates by the handbook exponent at half volts", () => {
    expect(lampAmps(testLight, 6) / 0.25).toBeCloseTo(0.5 ** 0.55, 12);
  });

  test("is a thirteenth of its hot ohms when cold", () => {
    const volts = 0.001;
    expect(volts / lampAmps(testLight, volts)).toBeCloseTo(48 / 13, 6);
  });

  test("its slope is the derivative of its current", () => {
    for (const volts of [0.001, 0.5, 3, 9, 14]) {
      const step = 1e-6;
      const slope = (lampAmps(testLight, volts + step) - lampAmps(testLight, volts - step)) / (2 * step);
      expect(lampSiemens(testLight, volts)).toBeCloseTo(slope, 5);
    }
  });

  test.each([0, 0.5, 20, 85, 2000, 1e6])("behind %p Ω the loop's volts add up", (ohms) => {
    for (const open of [0.2, 3, 12.6, -12.6]) {
      const volts = lampVolts(testLight, open, ohms);
      expect(volts + ohms * lampAmps(testLight, volts)).toBeCloseTo(Math.abs(open), 5);
    }
  });

  test("on a floating point it stays dark", () => {
    expect(lampVolts(testLight, 12, Number.POSITIVE_INFINITY)).toBe(0);
  });
});
