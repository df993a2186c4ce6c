import ical, { ICalCalendarMethod } from "ical-generator";

/** A day to check a vehicle again. */
export interface FollowUp {
  readonly job: number;
  readonly vehicle: string;
  /** A day such as 2026-12-24, in the shop's time zone. */
  readonly on: string;
  readonly why: string;
  readonly address: string;
  readonly made: Date;
}

/** The follow-up as a calendar file (iCalendar, RFC 5545): a whole day, with the same event id each time. */
export function followUpCalendar({ job, vehicle, on, why, address, made }: FollowUp): string {
  const calendar = ical({
    prodId: { company: "Airway", product: "follow-ups", language: "EN" },
    method: ICalCalendarMethod.PUBLISH,
  });
  calendar.createEvent({
    id: `job-${job}-follow-up@airway`,
    stamp: made,
    start: new Date(`${on}T00:00:00Z`),
    end: new Date(Date.parse(`${on}T00:00:00Z`) + 24 * 3600 * 1000),
    allDay: true,
    timezone: null,
    summary: `Check again: ${vehicle}`,
    description: `${why}\nJob ${job}`,
    url: address,
  });
  return calendar.toString();
}
