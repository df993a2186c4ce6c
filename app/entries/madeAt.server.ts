/** An entry that waited is dated back to when it was made, by at most this. */
const longestWaitSeconds = 7 * 24 * 3600;

/** When what is sent was made: now, less the seconds it says it waited in the browser. */
export function madeAt(fields: FormData): Date {
  const waited = Number(fields.get("waitedSeconds") ?? 0);
  const seconds = Number.isFinite(waited) ? Math.min(Math.max(0, waited), longestWaitSeconds) : 0;
  return new Date(Date.now() - 1000 * seconds);
}
