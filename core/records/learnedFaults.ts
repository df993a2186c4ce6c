import type { ClosureFinding } from "./closure";

/** Answers that name no fault of the part. */
export const noFault = ["sound", "unknown"] as const;

/** What the records take from the findings of a closing. */
export interface LearnedFaults {
  /** The fault that stands for the job; null if no line named one. */
  readonly main: ClosureFinding | null;
  /** Whether the shop learns from the job. */
  readonly teaches: boolean;
  /** Other faults that were proved on the same job, each once. */
  readonly further: readonly ClosureFinding[];
}

/**
 * What a shop may learn from a closing: only faults that the readings prove, and none from a temporary repair. A proved
 * fault stands for the job before one that is not, one of the last round before those of earlier ones.
 * @param wished whether the person wants the shop to learn from it
 * @param stopgap whether the repair as a whole only buys time
 */
export function learnedFaults(
  findings: readonly ClosureFinding[],
  wished: boolean,
  stopgap: boolean,
): LearnedFaults {
  const faults = findings.filter(({ fault }) => !noFault.some((other) => other === fault));
  const [main = null] = [...faults].sort((a, b) => Number(b.proved) - Number(a.proved) || b.round - a.round);
  const teaches = wished && !stopgap && main?.proved === true;
  const met = new Set(main ? [main.fault] : []);
  const further = faults.filter(({ fault, proved }) => {
    if (!proved || met.has(fault)) return false;
    met.add(fault);
    return true;
  });
  return { main, teaches, further };
}
