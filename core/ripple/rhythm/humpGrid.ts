import { meanOf } from "../../signal/currentRecording";
import type { HumpPhase } from "./humpPhase";

/** The recording by ripple: `points` values per ripple, ripple after ripple, with the ripple's top in the middle. */
export interface HumpGrid {
  readonly points: number;
  readonly humps: number;
  /** Ripple number of the first row, counted as the phase counts. */
  readonly first: number;
  readonly values: Float32Array;
}

/**
 * Resamples a recording onto a grid with a number of points per ripple; points without a sample are filled from their
 * neighbours.
 * @param most largest number of ripples, counted from the first
 */
export function humpGrid(
  amps: Float32Array,
  phase: HumpPhase,
  points: number,
  most = Number.POSITIVE_INFINITY,
): HumpGrid {
  const { from, block, humps: ripple } = phase;
  const first = Math.ceil((ripple[0] ?? 0) + 0.5);
  const last = Math.floor((ripple.at(-1) ?? 0) - 0.5);
  const count = Math.max(0, Math.min(most, last - first));
  const sums = new Float32Array(count * points);
  const hits = new Uint16Array(count * points);
  for (let at = 0; at + 1 < ripple.length && (ripple[at] as number) < first + count + 1; at++) {
    const [here, next] = [ripple[at] as number, ripple[at + 1] as number];
    const begin = from + at * block + (block >> 1);
    for (let i = 0; i < block; i++) {
      const place = (here + ((next - here) * (i + 0.5 * (1 - (block & 1)))) / block + 0.5 - first) * points;
      const cell = Math.floor(place);
      if (cell < 0) continue;
      if (cell >= sums.length) break;
      sums[cell] = (sums[cell] as number) + (amps[begin + i] as number);
      hits[cell] = (hits[cell] as number) + 1;
    }
  }
  let held = 0;
  for (let cell = 0; cell < sums.length; cell++) {
    if ((hits[cell] as number) > 0) held = (sums[cell] as number) / (hits[cell] as number);
    sums[cell] = held;
  }
  return { points, humps: count, first, values: sums };
}

/** Number of ripples beyond which more do not help to find what repeats. */
const humpsWeighed = 12_000;

/** The first ripples of a grid. */
export function beginningOf(grid: HumpGrid): HumpGrid {
  const ripple = Math.min(grid.humps, humpsWeighed);
  return { ...grid, humps: ripple, values: grid.values.subarray(0, ripple * grid.points) };
}

/** The mean of all ripples, point by point. */
export function meanHump({ points, values, humps: ripple }: HumpGrid): Float64Array {
  const mean = new Float64Array(points);
  for (let i = 0; i < ripple * points; i++)
    mean[i % points] = (mean[i % points] as number) + (values[i] as number) / ripple;
  return mean;
}

/** Root mean square of a grid's amps about their mean. */
export function swingOf({ values }: HumpGrid): number {
  const mean = meanOf(values);
  return Math.sqrt(values.reduce((sum, amps) => sum + (amps - mean) ** 2, 0) / values.length);
}

/**
 * Ripples that differ by less than this share of their swing are alike; a recording without noise repeats the pattern
 * of its sampling.
 */
const leastSwing = 0.1;

/** True if the differences between a grid's ripples are small compared with the ripples themselves. */
export const humpsAlike = (grid: HumpGrid, apartSwing: number): boolean =>
  apartSwing < leastSwing * swingOf(grid);

/**
 * Largest swing of a sound commutator's ripples, as a share of the mean current. With eight or more ripples per turn,
 * the back-EMF ripples by up to 1 − cos(π / 8) = 7.6 % of itself. The current ripples by that times back-EMF over the
 * remaining volts, which gives 0.6 with a back-EMF of eight ninths of the supply; blower motors at work have less.
 */
const mostSwing = 0.6;

/**
 * True if the mean ripple swings further than a sound commutator's can, so that bad bars cause it. A recording that
 * goes below zero was taken without its mean and says nothing about that.
 */
export function swingsTooFar(grid: HumpGrid): boolean {
  const hump = meanHump(beginningOf(grid));
  const [low, high] = [Math.min(...hump), Math.max(...hump)];
  return low >= 0 && high - low > mostSwing * meanOf(hump);
}
