import type { AccessPlan, AccessStep } from "./plan";

/** Minutes a step took on some job. */
export interface MeasuredStep {
  readonly step: string;
  readonly minutes: number;
}

/** What a shop learnt of one step's minutes, with the sum that made it. */
export interface LearntMinutes {
  readonly minutes: number;
  readonly measured: number;
  /** The arithmetic in figures. */
  readonly sum: string;
}

/** Jobs a plan's own figure counts for beside what was measured (judgement, no source). */
export const planWeight = 3;
/** Steps a pace of one counts for beside what was measured. */
const paceWeight = 6;

/** A shop's pace: what its steps take beside their plan, one until it has measured some. */
export interface Pace {
  readonly times: number;
  readonly measured: number;
  readonly sum: string;
}

const figure = (value: number): string => (Math.round(value * 100) / 100).toString();

/**
 * The pace of a shop over all it measured: every measured step's minutes over its plan's, drawn towards one.
 */
export function shopPace(plan: Pick<AccessPlan, "steps">, measured: readonly MeasuredStep[]): Pace {
  const planOf = new Map(plan.steps.map(({ id, minutes }) => [id, minutes]));
  const ratios = measured.flatMap(({ step, minutes }) => {
    const own = planOf.get(step) ?? 0;
    // A tick forgotten over lunch says nothing of the work.
    return own > 0 ? [Math.min(4, Math.max(0.25, minutes / own))] : [];
  });
  const total = ratios.reduce((sum, ratio) => sum + ratio, 0);
  return {
    times: (paceWeight + total) / (paceWeight + ratios.length),
    measured: ratios.length,
    sum: `(${paceWeight} × 1 + ${figure(total)}) / (${paceWeight} + ${ratios.length})`,
  };
}

/**
 * A step's minutes as this shop will take them: the plan's at the shop's pace, weighted as some jobs, with those that were
 * measured (shrinkage of a mean towards its group's: James and Stein 1961; the weight is a judgement).
 */
export function learntMinutes(
  step: Pick<AccessStep, "id" | "minutes">,
  pace: Pace,
  measured: readonly MeasuredStep[],
): LearntMinutes {
  const own = measured.filter((one) => one.step === step.id).map(({ minutes }) => minutes);
  const total = own.reduce((sum, minutes) => sum + minutes, 0);
  return {
    minutes: (planWeight * step.minutes * pace.times + total) / (planWeight + own.length),
    measured: own.length,
    sum: `(${planWeight} × ${figure(step.minutes)} × ${figure(pace.times)}${own.map((minutes) => ` + ${figure(minutes)}`).join("")}) / (${planWeight} + ${own.length})`,
  };
}
