import { expect, test } from "@jest/globals";
import { ageText, clockText, dayText, promiseText, wallText } from "./clock";

const moment = new Date("2026-03-29T00:30:00Z");

test("the clock is the shop's, including summer time", () => {
  expect(clockText(moment, "UTC")).toBe("00:30");
  expect(clockText(moment, "Europe/Lisbon")).toBe("00:30");
  // An hour later that shop's clocks have gone forward (last Sunday of March, 01:00 UTC: EU directive 2000/84/EC).
  expect(clockText(new Date("2026-03-29T01:30:00Z"), "Europe/Lisbon")).toBe("02:30");
  expect(dayText(moment, "America/Anchorage")).toBe("28 Mar 2026, 16:30");
});

test("a moment on the shop's clock, and a promise beside it", () => {
  expect(wallText(moment, "Europe/Lisbon")).toBe("2026-03-29T00:30");
  expect(wallText(moment, "America/Anchorage")).toBe("2026-03-28T16:30");
  const promised = (text: string) => promiseText(text, "2026-03-29T00:30");
  expect(promised("2026-03-29T16:00")).toBe("today 16:00");
  expect(promised("2026-03-30T09:00")).toBe("tomorrow 09:00");
  expect(promised("2026-03-28T09:00")).toBe("yesterday 09:00");
  expect(promised("2026-04-02T09:00")).toBe("2 Apr 09:00");
});

test.each([
  [0, "0 min"],
  [59, "59 min"],
  [60, "1 h"],
  [47 * 60 + 59, "47 h"],
  [48 * 60, "2 days"],
])("%d minutes ago is %s", (minutes, text) =>
  expect(ageText(moment, new Date(moment.getTime() + minutes * 60_000))).toBe(text),
);
