/** A backup by its file name and the time it was made. */
export interface BackupName {
  readonly name: string;
  /** Milliseconds since 1970, UTC. */
  readonly at: number;
}

/** Number of days, weeks and months for which one backup each is kept. */
export const kept = { days: 7, weeks: 5, months: 12 } as const;

const dayMilliseconds = 24 * 3600 * 1000;

/** Ordinals of a moment's day, week (from Monday) and month, in UTC. */
function ordinals(at: number): { day: number; week: number; month: number } {
  const moment = new Date(at);
  const day = Math.floor(at / dayMilliseconds);
  // 1 January 1970 was a Thursday.
  return {
    day,
    week: Math.floor((day + 3) / 7),
    month: 12 * moment.getUTCFullYear() + moment.getUTCMonth(),
  };
}

/**
 * The backups that may be deleted. All of the last 24 hours are kept, including those made before a restore. Of each
 * of the last days, weeks and months with a backup, the newest is kept; so is the newest of all.
 * @param now milliseconds since 1970
 */
export function backupsToDrop(backups: readonly BackupName[], now: number): string[] {
  const today = ordinals(now);
  const stays = new Set<string>();
  const met = new Set<string>();
  for (const { name, at } of [...backups].sort((a, b) => b.at - a.at)) {
    const own = ordinals(at);
    if (stays.size === 0 || now - at < dayMilliseconds) stays.add(name);
    for (const [unit, back] of [
      ["day", kept.days],
      ["week", kept.weeks],
      ["month", kept.months],
    ] as const) {
      const key = `${unit} ${own[unit]}`;
      if (today[unit] - own[unit] >= back || met.has(key)) continue;
      met.add(key);
      stays.add(name);
    }
  }
  return backups.flatMap(({ name }) => (stays.has(name) ? [] : [name]));
}
