// The follow-up as iCalendar, parsed back by an independent package.
import { describe, expect, test } from "@jest/globals";
import ICAL from "ical.js";
import { followUpCalendar } from "./followUp.server";

const followUp = {
  job: 25,
  vehicle: "Skerry Godwit hatchback, pharmacy hatchback",
  on: "2026-12-31",
  why: "Bearing oiled, not replaced; look, listen, draw \\ noise\nsecond line",
  address: "http://127.0.0.1:4310/jobs/25/close",
  made: new Date("2026-11-25T10:00:00Z"),
};
const eventOf = (text: string): ICAL.Event =>
  new ICAL.Event(new ICAL.Component(ICAL.parse(text)).getFirstSubcomponent("vevent") ?? undefined);

describe("a follow-up as a calendar file", () => {
  const text = followUpCalendar(followUp);

  test("is a whole day, even the last of the year, and says what to check", () => {
    const event = eventOf(text);
    expect(event.uid).toBe("job-25-follow-up@airway");
    expect(event.summary).toBe("Check again: Skerry Godwit hatchback, pharmacy hatchback");
    expect(event.description).toBe(`${followUp.why}\nJob 25`);
    expect(event.startDate.isDate).toBe(true);
    expect(event.startDate.toString()).toBe("2026-12-31");
    expect(event.endDate.toString()).toBe("2027-01-01");
  });

  test("is the same event each time, its lines at most 75 octets and ended by CR LF (RFC 5545, 3.1)", () => {
    expect(eventOf(followUpCalendar(followUp)).uid).toBe(eventOf(text).uid);
    expect(text.replaceAll("\r\n", "")).not.toMatch(/[\r\n]/);
    for (const line of text.split("\r\n")) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(text).toMatch(/^BEGIN:VCALENDAR\r\nVERSION:2\.0\r\n/);
  });

  test.each(["2026-03-29", "2026-10-25", "2028-02-29"])("%s is that day in every time zone", (on) => {
    expect(eventOf(followUpCalendar({ ...followUp, on })).startDate.toString()).toBe(on);
  });
});
