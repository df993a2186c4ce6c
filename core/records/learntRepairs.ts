import type { RepairCost } from "../money/stoppingCosts";

/** Minutes some repairs of a kind took together. */
export interface MeasuredRepairs {
  readonly kind: string;
  readonly jobs: number;
  readonly minutes: number;
}

/** What a repair of a kind takes as this shop does it, with the sum that made it. */
export interface LearntRepair {
  readonly kind: string;
  readonly before: number;
  readonly minutes: number;
  readonly jobs: number;
  readonly sum: string;
}

/** The table's minutes count as so many jobs of one's own (judgement, no source). */
const tableWeight = 3;

const figure = (value: number): string => (Math.round(value * 10) / 10).toString();

/**
 * The minutes a repair takes, drawn from the table's figure towards the shop's own mean by how often it was measured (shrinkage of
 * a mean towards its group's: James and Stein 1961).
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

/** The table with the learnt minutes in it. */
export const repairsAsLearnt = (
  table: Readonly<Record<string, RepairCost>>,
  learnt: readonly LearntRepair[],
): Record<string, RepairCost> => ({
  ...table,
  ...Object.fromEntries(
    learnt.map(({ kind, minutes }) => [kind, { priceMinor: table[kind]?.priceMinor ?? 0, minutes }]),
  ),
});
