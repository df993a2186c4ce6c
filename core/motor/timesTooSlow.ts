import { meanOf } from "./currentTrace";
import { foldConsistency, humpsApart, isSmoothHump, repeatsAfter } from "./foldedTurn";
import type { HumpGrid } from "./humpPhase";

/** A rhythm may be so many times too slow. */
const mostTimes = 8;
/** What sets humps apart must repeat so well to tell how fast the right rhythm is: what is left of a chopping does so less. */
const leastApart = 0.7;
/** Humps that differ by less than this share of their swing are alike: a trace without noise repeats what its sampling does. */
const leastSwing = 0.1;
/** And at the right rhythm so nearly as well as at any: bad bars opposite each other repeat a little less at twice that. */
const apartWithin = 0.04;
/** As many humps tell as well what repeats as the whole of a long record, which has hundreds of thousands. */
const humpsWeighed = 12_000;

function beginningOf(grid: HumpGrid): HumpGrid {
  const humps = Math.min(grid.humps, humpsWeighed);
  return { ...grid, humps, values: grid.values.subarray(0, humps * grid.points) };
}

/** Root mean square of a grid's amps over their mean. */
function swingOf({ values }: HumpGrid): number {
  const mean = meanOf(values);
  return Math.sqrt(values.reduce((sum, amps) => sum + (amps - mean) ** 2, 0) / values.length);
}

/**
 * How many times too slow a rhythm of humps is, whose turns repeat each other; 1 where it is right. Bad bars repeat once a pole
 * and at nothing faster. A rhythm a fraction of the right one repeats as well, but so does some rhythm faster than it; the humps
 * themselves, which repeat at every bar, have no say.
 * @param most so many times as fast the humps may be
 */
export function timesTooSlow(grid: HumpGrid, perTurn: number, poles: number, most: number): number {
  const perPole = perTurn / poles;
  const beginning = beginningOf(grid);
  const apart = humpsApart(beginning);
  const repeats = repeatsAfter(apart, perTurn);
  if (repeats < leastApart || swingOf(apart) < leastSwing * swingOf(beginning)) {
    // All humps are alike: sound ones, or each is what bad bars make in half a turn, which is seldom as smooth.
    const smooth = isSmoothHump(grid.values, grid.points, foldConsistency(grid, perTurn));
    return smooth || perPole > most ? 1 : perPole;
  }
  const faster = Array.from({ length: (mostTimes - 1) * poles }, (_, i) => 1 + (i + 1) / poles)
    .filter((times) => times <= most)
    .map((times) => ({ times, repeats: repeatsAfter(apart, perPole / times) }));
  const best = Math.max(repeats, ...faster.map((own) => own.repeats));
  return faster.findLast((own) => own.repeats > best - apartWithin)?.times ?? 1;
}
