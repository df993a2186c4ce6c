import { beginningOf, type HumpGrid, humpsAlike, swingOf, swingsTooFar } from "./rhythm/humpGrid";
import { foldConsistencyBesideNoise, humpsApart, repeatsAfter } from "./turn/foldedTurn";

/**
 * Least correlation between successive turns, noise set aside, for the rhythm to be a turn. In 1,350 simulated recordings
 * of two models no right rhythm fell below 0.91; a PWM clock taken for the ripple had 0.66 to 0.88 (measured).
 */
const leastRepeats = 0.9;
/** The same where PWM was removed: what is left of it repeats with no turn. */
const leastRepeatsChopped = 0.5;
/** The same between the ripples of one turn where bad bars set them apart. */
const leastShared = 0.92;
/**
 * Largest growth by chance, as a factor, of what repeats when more periods are averaged: up to 2 in 500 recordings with
 * one bad bar, 4 to 480 in 27 with bad bars opposite each other (measured on two models).
 */
const mostChance = 3;

/**
 * Why a rhythm is not trusted: its turns do not repeat each other, bad bars are taken for ripples, or the true rhythm
 * may be slower.
 */
export type RhythmDoubt =
  | { readonly kind: "no-turns" }
  | { readonly kind: "too-tall" }
  | { readonly kind: "slower"; readonly times: number };

/** What is known of a motor apart from its ripple's rhythm. */
export interface RhythmKnown {
  readonly perTurn: number;
  readonly poles: number;
  /** How many times slower than the rhythm the ripples may be. */
  readonly most: number;
  /** True if a module's PWM was removed from the recording. */
  readonly chopped: boolean;
}

/**
 * Whether a rhythm can be trusted if ripples per turn are known; null if it can. Effects of bad bars must repeat once
 * per pole, because they pass every brush. If they repeat better after two or three poles, they are bad bars opposite
 * each other on a slower motor.
 */
export function rhythmDoubt(
  grid: HumpGrid,
  { perTurn, poles, most, chopped }: RhythmKnown,
): RhythmDoubt | null {
  if (swingsTooFar(grid)) return { kind: "too-tall" };
  const perPole = perTurn / poles;
  const beginning = beginningOf(grid);
  if (beginning.humps < 2 * perTurn) return null;
  const steady = withoutWander(beginning, perTurn);
  const shared = foldConsistencyBesideNoise(steady, perPole);
  const apart = humpsApart(steady);
  const [once, ...more] = [1, 2, 3].map((times) => repeatsAfter(apart, times * perPole)) as [number, number];
  if (humpsAlike(beginning, Math.sqrt(Math.max(once, ...more)) * swingOf(apart)))
    return shared < (chopped ? leastRepeatsChopped : leastRepeats) ? { kind: "no-turns" } : null;
  if (shared < leastShared) return { kind: "no-turns" };
  const better = more.findIndex((own, i) => {
    const periods = Math.floor(beginning.humps / ((i + 2) * perPole));
    return own - once > mostChance * ((1 - own) / periods);
  });
  return better >= 0 && better + 2 <= most ? { kind: "slower", times: better + 2 } : null;
}

/** A grid without slow variation once per turn, which comes from an unbalanced wheel and not from the bars. */
function withoutWander(grid: HumpGrid, perTurn: number): HumpGrid {
  const { points, values } = grid;
  const cells = perTurn * points;
  const step = (2 * Math.PI) / cells;
  const whole = Math.floor(values.length / cells) * cells;
  let [re, im] = [0, 0];
  for (let i = 0; i < whole; i++) {
    re += (2 / whole) * (values[i] as number) * Math.cos(step * i);
    im += (2 / whole) * (values[i] as number) * Math.sin(step * i);
  }
  return {
    ...grid,
    values: values.map((value, i) => value - re * Math.cos(step * i) - im * Math.sin(step * i)),
  };
}
