import { beginningOf, type HumpGrid, humpsAlike, swingOf, swingsTooFar } from "./rhythm/humpGrid";
import { foldConsistency, humpsApart, isSmoothHump, repeatsAfter } from "./turn/foldedTurn";

/** Largest factor by which a rhythm may be too slow. */
const mostTimes = 8;
/**
 * Smallest correlation of what sets ripples apart that tells how fast the right rhythm is. What is left of PWM repeats
 * less.
 */
const leastApart = 0.7;
/** And at the right rhythm so nearly as well as at any: bad bars opposite each other repeat a little less at twice that. */
const apartWithin = 0.04;

/**
 * How many times too slow a rhythm of ripples is, whose turns repeat each other; 1 where it is right. Bad bars repeat once a pole
 * and at nothing faster. A rhythm a fraction of the right one repeats as well, but so does some rhythm faster than it; the ripples
 * themselves, which repeat at every bar, have no say.
 * @param most so many times as fast the ripples may be
 */
export function timesTooSlow(grid: HumpGrid, perTurn: number, poles: number, most: number): number {
  const perPole = perTurn / poles;
  const beginning = beginningOf(grid);
  const apart = humpsApart(beginning);
  const repeats = repeatsAfter(apart, perTurn);
  if (repeats < leastApart || humpsAlike(beginning, swingOf(apart))) {
    // All ripples are alike: sound ones, or each is what bad bars make in half a turn, which is seldom as
    // smooth and mostly taller.
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
