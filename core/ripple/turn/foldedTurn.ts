import { meanOf, medianOf } from "../../signal/currentRecording";
import { type HumpGrid, meanHump } from "../rhythm/humpGrid";
import { turnLine } from "./turnLine";

/** One revolution, the mean of many. */
export interface FoldedTurn {
  readonly turns: number;
  /** Points per ripple, with the ripple's top in the middle. */
  readonly points: number;
  /** Amps by point, ripple after ripple. */
  readonly amps: readonly number[];
  /** Height of each ripple over the line through the valleys. */
  readonly humpAmps: readonly number[];
  /** Standard error of each height, from its scatter over the turns. */
  readonly errorAmps: readonly number[];
  /** Variation of the valleys' line over the turn, peak to peak: a tight spot, or an unbalanced wheel. */
  readonly wanderAmps: number;
}

/** Ripples per turn from which the line through the valleys may have a second order. */
const leastForSecond = 14;

/** Averages a recording's ripples over its turns, with a given number of ripples per turn. */
export function foldedTurn(grid: HumpGrid, perTurn: number): FoldedTurn {
  const { points, values } = grid;
  const turns = Math.floor(grid.humps / perTurn);
  const cells = perTurn * points;
  const amps = new Float64Array(cells);
  for (let turn = 0; turn < turns; turn++)
    for (let i = 0; i < cells; i++)
      amps[i] = (amps[i] as number) + (values[turn * cells + i] as number) / turns;
  const shape = humpShape(values, points);
  const tops = Float64Array.from({ length: perTurn }, (_, hump) => topOf(amps, points, hump, shape.top));
  const valleys = Float64Array.from(
    { length: perTurn },
    (_, hump) => amps[hump * points + shape.valley] as number,
  );
  const orders = perTurn >= leastForSecond ? 2 : 1;
  const line = turnLine(valleys, orders, shape.valley / points);
  const humpAmps = [...tops].map((top, hump) => top - line.at(hump + (shape.top + 0.5) / points));
  return {
    turns,
    points,
    amps: [...amps],
    humpAmps,
    errorAmps: errorsOf(grid, perTurn, turns, shape),
    wanderAmps: line.swing,
  };
}

/** A recording's variation within turns, as mean squares. */
interface FoldShares {
  /** All of it. */
  readonly all: number;
  /** The part the mean turn explains; of pure noise it explains one part in as many as there are turns. */
  readonly explained: number;
  /** The part of the rest that changes from point to point, as noise does. */
  readonly noise: number;
  readonly turns: number;
}

function foldShares({ points, values, humps: ripple }: HumpGrid, perTurn: number): FoldShares {
  const cells = perTurn * points;
  const turns = Math.floor(ripple / perTurn);
  const mean = new Float64Array(cells);
  const levels = Float64Array.from({ length: turns }, (_, turn) =>
    meanOf(values.subarray(turn * cells, (turn + 1) * cells)),
  );
  const own = (i: number): number => (values[i] as number) - (levels[Math.floor(i / cells)] as number);
  let all = 0;
  for (let i = 0; i < turns * cells; i++) {
    mean[i % cells] = (mean[i % cells] as number) + own(i) / turns;
    all += own(i) ** 2 / (turns * cells);
  }
  let noise = 0;
  let before = 0;
  for (let i = 0; i < turns * cells; i++) {
    const rest = own(i) - (mean[i % cells] as number);
    // The mean square of white noise is half the mean square of its differences.
    if (i > 0) noise += (rest - before) ** 2 / (2 * turns * cells);
    before = rest;
  }
  return { all, explained: mean.reduce((sum, value) => sum + (value * value) / cells, 0), noise, turns };
}

/**
 * How well the turns of a recording repeat each other: the share of the variation within turns that their mean
 * explains. Near 1 if ripples per turn and rhythm are right, small if they are not.
 */
export function foldConsistency(grid: HumpGrid, perTurn: number): number {
  const { all, explained, turns } = foldShares(grid, perTurn);
  if (turns < 2 || all === 0) return 0;
  return Math.max(0, (explained / all - 1 / turns) / (1 - 1 / turns));
}

/** The same without noise, which changes from point to point; 1 if there is nothing but noise. */
export function foldConsistencyBesideNoise(grid: HumpGrid, perTurn: number): number {
  const { all, explained, noise, turns } = foldShares(grid, perTurn);
  if (turns < 2) return 0;
  const repeats = Math.max(0, explained - noise / turns);
  const differs = Math.max(0, all - explained - noise);
  return repeats + differs === 0 ? 1 : repeats / (repeats + differs);
}

/** The differences between a grid's ripples: each minus the mean of all. */
export function humpsApart(grid: HumpGrid): HumpGrid {
  const mean = meanHump(grid);
  return { ...grid, values: grid.values.map((value, i) => value - (mean[i % grid.points] as number)) };
}

/** The share of a grid's variation that repeats after a number of ripples, which need not be whole. */
export function repeatsAfter({ points, values, humps: ripple }: HumpGrid, period: number): number {
  const cells = Math.max(2, Math.round(period * points));
  const step = (period * points) / cells;
  const times = Math.floor((ripple * points - 1) / (period * points));
  if (times < 2) return 0;
  const sum = new Float64Array(cells);
  let all = 0;
  for (let i = 0; i < times * cells; i++) {
    const at = i * step;
    const before = Math.floor(at);
    const share = at - before;
    const value = (1 - share) * (values[before] as number) + share * (values[before + 1] as number);
    sum[i % cells] = (sum[i % cells] as number) + value;
    all += value * value;
  }
  const explained = sum.reduce((total, own) => total + (own * own) / times, 0);
  // Pure noise explains one part in as many as there are periods.
  return all === 0 ? 0 : Math.max(0, (explained / all - 1 / times) / (1 - 1 / times));
}

/** Position of a ripple's top and valley, from the median of all ripples, so that bad ones do not count. */
export interface HumpShape {
  readonly top: number;
  readonly valley: number;
}

/** Number of ripples averaged for the shape of one ripple. */
const shapeHumps = 1500;

/** Every ripple's amps over its own mean, point by point; limited to as many ripples as are useful. */
function columnsOf(amps: ArrayLike<number>, points: number): number[][] {
  const ripple = Math.floor(amps.length / points);
  const step = Math.max(1, Math.floor(ripple / shapeHumps));
  const columns: number[][] = Array.from({ length: points }, () => []);
  for (let hump = 0; hump < ripple; hump += step) {
    let mean = 0;
    for (let i = 0; i < points; i++) mean += (amps[hump * points + i] as number) / points;
    for (let i = 0; i < points; i++) columns[i]?.push((amps[hump * points + i] as number) - mean);
  }
  return columns;
}

const usualShape = (amps: ArrayLike<number>, points: number): number[] =>
  columnsOf(amps, points).map(medianOf);

/** Position of a ripple's top and valley among its points, from the median of overlaid ripples. */
export function humpShape(amps: ArrayLike<number>, points: number): HumpShape {
  const shape = usualShape(amps, points);
  return { top: shape.indexOf(Math.max(...shape)), valley: shape.indexOf(Math.min(...shape)) };
}

/** Height of a second bump, as a share of the swing, from which one grid ripple holds several. */
const bumpShare = 0.25;

/** Number of rises and falls larger than some amps in a shape, going round from its lowest point. */
function bumpsIn(shape: readonly number[], amps: number): number {
  const low = Math.min(...shape);
  const start = shape.indexOf(low);
  let bumps = 0;
  let [foot, crest] = [low, low];
  for (let i = 1; i <= shape.length; i++) {
    const own = shape[(start + i) % shape.length] as number;
    if (own > crest) crest = own;
    if (crest - own > amps && crest - foot > amps) {
      bumps += 1;
      [foot, crest] = [own, own];
    }
    if (own < foot) [foot, crest] = [own, own];
  }
  return bumps;
}

/** True if the usual ripple rises once and falls once. */
export function isOneHump(values: Float32Array, points: number): boolean {
  const shape = usualShape(values, points);
  return bumpsIn(shape, bumpShare * (Math.max(...shape) - Math.min(...shape))) <= 1;
}

/** Largest second bump of a smooth ripple, as a share of the swing. */
const slightShare = 0.015;
/** The same in standard errors. */
const slightErrors = 6;

/**
 * True if the usual ripple is smooth: a commutator's ripple has one top. The effect of bad bars over half a turn
 * usually has one dominant peak, with the ripples in between as small bumps on its flanks.
 * @param repeats the share of the variation that the turns have in common; the rest is noise
 */
export function isSmoothHump(values: Float32Array, points: number, repeats: number): boolean {
  const columns = columnsOf(values, points);
  const shape = columns.map(medianOf);
  const swing = Math.max(...shape) - Math.min(...shape);
  const square = meanOf(columns.map((own) => meanOf(own.map((amps) => amps * amps))));
  // A median's standard error is 1.25 times a mean's (normal scatter; handbooks of statistics, from memory).
  const error = 1.25 * Math.sqrt((square * Math.max(0, 1 - repeats)) / Math.max(1, columns[0]?.length ?? 1));
  return bumpsIn(shape, Math.max(slightShare * swing, slightErrors * error)) <= 1;
}

/** The top of a ripple: the mean of the three points around the usual position, so that noise does not bias it. */
function topOf(amps: ArrayLike<number>, points: number, hump: number, top: number): number {
  const at = hump * points + top;
  const reach = points >= 12 ? 1 : 0;
  let sum = 0;
  for (let i = at - reach; i <= at + reach; i++) sum += amps[(i + amps.length) % amps.length] as number;
  return sum / (2 * reach + 1);
}

/** Height of every ripple of a grid over the mean of its two valleys. */
export function singleHeights(grid: HumpGrid, shape: HumpShape): Float64Array {
  const { points, values, humps: ripple } = grid;
  // The valley after a top belongs to this ripple; the one before it also ends the previous ripple.
  return Float64Array.from({ length: Math.max(0, ripple - 2) }, (_, i) => {
    const hump = i + 1;
    const valley = hump * points + shape.valley;
    const other = shape.valley > shape.top ? valley - points : valley + points;
    return (
      topOf(values, points, hump, shape.top) - ((values[valley] as number) + (values[other] as number)) / 2
    );
  });
}

function errorsOf(grid: HumpGrid, perTurn: number, turns: number, shape: HumpShape): number[] {
  const { points, values } = grid;
  return Array.from({ length: perTurn }, (_, hump) => {
    const own: number[] = [];
    for (let turn = 0; turn < turns; turn++) {
      const at = turn * perTurn + hump;
      own.push(topOf(values, points, at, shape.top) - (values[at * points + shape.valley] as number));
    }
    const mean = meanOf(own);
    const variance = own.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, turns - 1);
    return Math.sqrt(variance / Math.max(1, turns));
  });
}
