/** The shop's clock: its zone from AIRWAY_ZONE on the server, the same text on server and page. */
export function clockText(moment: Date, zone: string): string {
  return new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", timeZone: zone }).format(
    moment,
  );
}

/** Day and time, as on a job card. */
export function dayText(moment: Date, zone: string): string {
  return new Intl.DateTimeFormat("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
    timeZone: zone,
  }).format(moment);
}

/** Money in minor units, without a currency: the shop knows its own. */
export const moneyText = (minor: number): string => (minor / 100).toFixed(2);
