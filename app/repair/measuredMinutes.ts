/**
 * Shares of the plan's minutes: a tick sooner than the first was ticked together with another; one later than the
 * second, after a break.
 */
const soonest = 0.25;
const latest = 6;

/**
 * Minutes a step took since the tick before it; null if they say nothing about the work.
 * @param planned the plan's own minutes
 */
export function measuredMinutes(planned: number, before: Date, now: Date): number | null {
  const minutes = (now.getTime() - before.getTime()) / 60_000;
  return minutes >= soonest * planned && minutes <= latest * planned ? minutes : null;
}
