import { beginningOf, type HumpGrid, humpsAlike, swingOf, swingsTooFar } from "./rhythm/humpGrid";
import { foldConsistency, humpsApart, isSmoothHump, repeatsAfter } from "./turn/foldedTurn";

/** Largest factor by which a rhythm may be too slow. */
const mostTimes = 8;
/**
 * Smallest correlation of what sets ripples apart that tells how fast the right rhythm is. What is left of PWM repeats
 * less.
 */
const leastApart = 0.7;
/**
 * Share of the best correlation that the right rhythm must reach: bad bars opposite each other repeat slightly less at
 * twice its frequency.
 */
const apartWithin = 0.04;

/**
 * How many times too slow a rhythm of ripples is whose turns repeat each other; 1 if it is right. Effects of bad bars
 * repeat once per pole and at nothing faster. A rhythm at a fraction of the right frequency repeats as well, but so
 * does some faster rhythm. The ripples themselves repeat at every bar and cannot decide.
 * @param most largest factor to consider
 */
export function timesTooSlow(grid: HumpGrid, perTurn: number, poles: number, most: number): number {
  const perPole = perTurn / poles;
  const beginning = beginningOf(grid);
  const apart = humpsApart(beginning);
  const repeats = repeatsAfter(apart, perTurn);
  if (repeats < leastApart || humpsAlike(beginning, swingOf(apart))) {
    // All ripples are alike: they are sound, or each is the effect of bad bars over half a turn, which is seldom as
    // smooth and usually taller.
    const sound =
      !swingsTooFar(grid) && isSmoothHump(grid.values, grid.points, foldConsistency(grid, perTurn));
    return sound || perPole > most ? 1 : perPole;
  }
  const faster = Array.from({ length: (mostTimes - 1) * poles }, (_, i) => 1 + (i + 1) / poles)
    .filter((times) => times <= most)
    .map((times) => ({ times, repeats: repeatsAfter(apart, perPole / times) }));
  const best = Math.max(repeats, ...faster.map((own) => own.repeats));
  return faster.findLast((own) => own.repeats > best - apartWithin)?.times ?? 1;
}
