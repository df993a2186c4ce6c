import { expect, test } from "@jest/globals";
import { clockText, dayText } from "./clock";

const moment = new Date("2026-03-29T00:30:00Z");

test("the clock is the shop's, including summer time", () => {
  expect(clockText(moment, "UTC")).toBe("00:30");
  expect(clockText(moment, "Europe/Lisbon")).toBe("00:30");
  // An hour later that shop's clocks have gone forward (last Sunday of March, 01:00 UTC: EU directive 2000/84/EC).
  expect(clockText(new Date("2026-03-29T01:30:00Z"), "Europe/Lisbon")).toBe("02:30");
  expect(dayText(moment, "America/Anchorage")).toBe("28 Mar 2026, 16:30");
});
