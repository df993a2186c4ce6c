const formats = new Map<string, Intl.DateTimeFormat>();

/** Formatters are stored, because making one costs more than using it a hundred times. */
function formatted(moment: Date, zone: string, options: Intl.DateTimeFormatOptions): string {
  const key = `${zone} ${Object.keys(options).join()}`;
  const format = formats.get(key) ?? new Intl.DateTimeFormat("en-GB", { ...options, timeZone: zone });
  formats.set(key, format);
  return format.format(moment);
}

const clock = { hour: "2-digit", minute: "2-digit" } as const;
const day = { day: "numeric", month: "short", year: "numeric" } as const;

/** The shop's clock: its zone comes from AIRWAY_ZONE on the server, so server and page show the same text. */
export const clockText = (moment: Date, zone: string): string => formatted(moment, zone, clock);

/** Day and time, as on a job card. */
export const dayText = (moment: Date, zone: string): string => formatted(moment, zone, { ...day, ...clock });
