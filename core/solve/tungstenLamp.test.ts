import { describe, expect, test } from "@jest/globals";
import { lampAmps, lampSiemens, lampVolts, roughLampVolts, testLight } from "./tungstenLamp";

describe("a 12 V 3 W test light", () => {
  test("draws its rated current at rated volts", () => {
    expect(lampAmps(testLight, 12)).toBeCloseTo(0.25, 12);
  });

  // Re-rating exponent 0.55 for current: incandescent lamp handbooks, from memory.
  test("re-rates by the handbook exponent at half volts", () => {
    expect(lampAmps(testLight, 6) / 0.25).toBeCloseTo(0.5 ** 0.55, 12);
  });

  test("has a thirteenth of its hot ohms when cold", () => {
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

  test("the tabulated volts stay within a twentieth of a volt of the law", () => {
    for (const ohms of [0, 0.02, 0.2, 0.9, 2.9, 3.1, 12, 85, 1000, 47_000]) {
      for (const open of [0.05, 1, 3.3, 7, 12.6, 14.4])
        expect(
          Math.abs(roughLampVolts(testLight, open, ohms) - lampVolts(testLight, open, ohms)),
        ).toBeLessThan(0.05);
    }
    expect(roughLampVolts(testLight, 12, Number.POSITIVE_INFINITY)).toBe(0);
  });
});
