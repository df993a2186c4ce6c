import type { AccessPlan, AccessStep } from "./plan";

/** Minutes a step took on one job. */
export interface MeasuredStep {
  readonly step: string;
  readonly minutes: number;
}

/** What a shop has learned about one step's minutes, with the calculation. */
export interface LearntMinutes {
  readonly minutes: number;
  readonly measured: number;
  /** The calculation in figures. */
  readonly sum: string;
}

/** The plan's own figure counts as this many measured jobs (judgement, no source). */
export const planWeight = 3;
/** A pace of one counts as this many measured steps. */
const paceWeight = 6;

/** A shop's pace: its minutes as a multiple of the plan's; one until it has measured some. */
export interface Pace {
  readonly times: number;
  readonly measured: number;
  readonly sum: string;
}

const figure = (value: number): string => (Math.round(value * 100) / 100).toString();

/** A shop's pace from everything it measured: minutes of all measured steps over their plans', drawn towards one. */
export function shopPace(plan: Pick<AccessPlan, "steps">, measured: readonly MeasuredStep[]): Pace {
  const planOf = new Map(plan.steps.map(({ id, minutes }) => [id, minutes]));
  const ratios = measured.flatMap(({ step, minutes }) => {
    const own = planOf.get(step) ?? 0;
    // A step left running over lunch says nothing about the work, so it is ignored.
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
 * A step's expected minutes in this shop: the plan's at the shop's pace, weighted as some jobs, averaged with those
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
