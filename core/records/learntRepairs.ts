import type { RepairCost } from "../money/stoppingCosts";

/** Minutes that some repairs of one kind took together. */
export interface MeasuredRepairs {
  readonly kind: string;
  readonly jobs: number;
  readonly minutes: number;
}

/** The time this shop takes for a kind of repair, with the calculation. */
export interface LearntRepair {
  readonly kind: string;
  readonly before: number;
  readonly minutes: number;
  readonly jobs: number;
  readonly sum: string;
}

/** The table's minutes count as this many of the shop's own jobs (judgement, no source). */
const tableWeight = 3;

const figure = (value: number): string => (Math.round(value * 10) / 10).toString();

/**
 * The minutes of a repair, drawn from the table's figure towards the shop's own mean by the number of measured jobs
 * (shrinkage of a mean towards its group's: James and Stein 1961).
 */
export function learntRepairs(
  table: Readonly<Record<string, RepairCost>>,
  measured: readonly MeasuredRepairs[],
): LearntRepair[] {
  return measured.flatMap(({ kind, jobs, minutes }) => {
    const before = table[kind]?.minutes;
    if (before === undefined || jobs === 0) return [];
    return [
      {
        kind,
        before,
        jobs,
        minutes: (tableWeight * before + minutes) / (tableWeight + jobs),
        sum: `(${tableWeight} × ${figure(before)} + ${figure(minutes)}) / (${tableWeight} + ${jobs})`,
      },
    ];
  });
}

/** The table with the learned minutes. */
export const repairsAsLearnt = (
  table: Readonly<Record<string, RepairCost>>,
  learnt: readonly LearntRepair[],
): Record<string, RepairCost> => ({
  ...table,
  ...Object.fromEntries(
    learnt.map(({ kind, minutes }) => [kind, { priceMinor: table[kind]?.priceMinor ?? 0, minutes }]),
  ),
});
