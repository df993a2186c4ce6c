/** The shop's time zone: AIRWAY_ZONE, or the machine's own. */
export const shopZone = (): string =>
  process.env.AIRWAY_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
