/** Ohms a usual pack adds for each speed below the top, for a 20 A motor (common practice, no source). */
const usualTotals = [0, 0.4, 1.0, 2.2, 3.4, 5.0, 7.0, 9.5, 12.5, 16, 20, 25];

/**
 * Usual ohms of a pack's elements, the lowest speed's first: each is the difference between its speed and the next.
 * @param count number of elements
 * @param ratedAmps of the motor; a smaller motor needs more ohms for the same speed
 */
export function usualSteps(count: number, ratedAmps: number): number[] {
  const totals = usualTotals.slice(0, count + 1).map((ohms) => (ohms * 20) / ratedAmps);
  return Array.from({ length: count }, (_, step) => {
    const [above = 0, below = 0] = [totals[count - step - 1], totals[count - step]];
    return Number((below - above).toPrecision(2));
  });
}
