const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/**
 * Ripples per turn of a motor with one brush per pole: the least common multiple of bars and poles. 12 bars and 2
 * poles give 12, 11 give 22 (pulses of a commutated winding, textbooks on direct-current machines, from memory).
 */
export const humpsPerTurn = (bars: number, poles: number): number => (bars * poles) / gcd(bars, poles);

/** Numbers of bars on blower motors' commutators (common practice, no source). */
export const fewestBars = 8;
export const mostBars = 24;

/**
 * The numbers of bars that give this many ripples per turn; often several, since 11 and 22 both give 22 on two poles.
 */
export function barsFor(ripple: number, poles: number): number[] {
  const fitting: number[] = [];
  for (let bars = fewestBars; bars <= mostBars; bars++)
    if (humpsPerTurn(bars, poles) === ripple) fitting.push(bars);
  return fitting;
}

/** Every number of ripples per turn a commutator can give, ascending. */
export function possibleHumps(poles: number): number[] {
  const counts = new Set<number>();
  for (let bars = fewestBars; bars <= mostBars; bars++) counts.add(humpsPerTurn(bars, poles));
  return [...counts].sort((a, b) => a - b);
}
