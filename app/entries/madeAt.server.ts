/** Largest time by which a waiting entry is dated back to when it was made. */
const longestWaitSeconds = 7 * 24 * 3600;

/** When an entry was made: now, minus the seconds it reports to have waited in the browser. */
export function madeAt(fields: FormData): Date {
  const waited = Number(fields.get("waitedSeconds") ?? 0);
  const seconds = Number.isFinite(waited) ? Math.min(Math.max(0, waited), longestWaitSeconds) : 0;
  return new Date(Date.now() - 1000 * seconds);
}
