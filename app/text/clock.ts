const formats = new Map<string, Intl.DateTimeFormat>();

/** Formatters are stored, because making one costs more than using it a hundred times. */
function formatted(
  moment: Date,
  zone: string,
  options: Intl.DateTimeFormatOptions,
  language = "en-GB",
): string {
  const key = `${language} ${zone} ${Object.keys(options).join()}`;
  const format = formats.get(key) ?? new Intl.DateTimeFormat(language, { ...options, timeZone: zone });
  formats.set(key, format);
  return format.format(moment);
}

const clock = { hour: "2-digit", minute: "2-digit" } as const;
const day = { day: "numeric", month: "short", year: "numeric" } as const;

/** The shop's clock: its zone comes from AIRWAY_ZONE on the server, so server and page show the same text. */
export const clockText = (moment: Date, zone: string): string => formatted(moment, zone, clock);

/** Day and time, as on a job card. */
export const dayText = (moment: Date, zone: string): string => formatted(moment, zone, { ...day, ...clock });

/** A moment on the shop's clock, `2026-12-24T16:00`. */
export const wallText = (moment: Date, zone: string): string =>
  // Swedish writes dates as ISO 8601 does, with a space before the time.
  formatted(moment, zone, { dateStyle: "short", timeStyle: "short" }, "sv-SE").replace(" ", "T");

const dayMilliseconds = 86_400_000;

/** How long ago a moment was: `40 min`, `5 h`, `3 days`. */
export function ageText(moment: Date, now: Date): string {
  const minutes = Math.max(0, Math.floor((now.getTime() - moment.getTime()) / 60_000));
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)} h`;
  return `${Math.floor(minutes / (24 * 60))} days`;
}

/** A day such as 2026-12-24 in words, `24 Dec 2026`. */
export const dayWords = (of: string): string => formatted(new Date(`${of}T12:00:00Z`), "UTC", day);

/** A day such as 2026-12-24 in short, `24 Dec`. */
export const dayAndMonth = (day: string): string =>
  formatted(new Date(`${day}T12:00:00Z`), "UTC", { day: "numeric", month: "short" });

/** A promised time relative to now, both on the shop's clock: `today 16:00`, `tomorrow 09:00`, `24 Dec 16:00`. */
export function promiseText(promised: string, now: string): string {
  const [day = "", hour = ""] = promised.split("T");
  const days = (Date.parse(day) - Date.parse(now.slice(0, 10))) / dayMilliseconds;
  const near: Readonly<Record<string, string>> = { "-1": "yesterday", 0: "today", 1: "tomorrow" };
  return `${near[days] ?? dayAndMonth(day)} ${hour}`;
}
