import { keyOfReading, type Reading, resultOf, type Test, testOf } from "../../predict/reading";
import type { Conflict } from "../explain/conflict";
import type { Cited } from "../explain/reasons";

/** A reading that contradicts the others, and whether its test is worth repeating. */
export interface Disputed {
  readonly cited: Cited;
  readonly test: Test;
  /** True if the test was taken once; false if it was repeated and still contradicts. */
  readonly once: boolean;
}

/**
 * The reading that stands between the evidence and a confirmed verdict. A contradiction is settled once the same test
 * gave another result: one of the two was the slip.
 * @param readings those the conflicts count, from 0
 */
export function disputedReading(
  readings: readonly Reading[],
  conflicts: readonly Conflict[],
): Disputed | null {
  for (const { reading: place, slip } of conflicts) {
    const reading = readings[place];
    if (!reading) continue;
    const key = keyOfReading(reading);
    const same = readings.filter((other) => keyOfReading(other) === key);
    if (same.some((other) => resultOf(other) !== resultOf(reading))) continue;
    return { cited: slip, test: testOf(reading), once: same.length === 1 };
  }
  return null;
}
