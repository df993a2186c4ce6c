/** A tick sooner than this share of the plan's minutes was ticked in a row with another; later than so many times, over a meal. */
const soonest = 0.25;
const latest = 6;

/**
 * Minutes a step took, from the tick before it; null where they say nothing of the work.
 * @param planned the plan's own minutes
 */
export function measuredMinutes(planned: number, before: Date, now: Date): number | null {
  const minutes = (now.getTime() - before.getTime()) / 60_000;
  return minutes >= soonest * planned && minutes <= latest * planned ? minutes : null;
}
