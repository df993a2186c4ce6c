import { meanOf, medianOf } from "./currentTrace";
import type { HumpGrid } from "./humpPhase";
import { turnLine } from "./turnLine";

/** One revolution, the mean of many. */
export interface FoldedTurn {
  readonly turns: number;
  /** Points a hump, the hump's top in the middle. */
  readonly points: number;
  /** Amps by point, hump after hump. */
  readonly amps: readonly number[];
  /** Height of each hump over the line through the valleys. */
  readonly humpAmps: readonly number[];
  /** Standard error of each height, from its scatter over the turns. */
  readonly errorAmps: readonly number[];
  /** Swing of the valleys' line over the turn, peak to peak: a tight spot, a wheel out of balance. */
  readonly wanderAmps: number;
}

/** So many valleys are needed for a second swing a turn in their line. */
const leastForSecond = 14;

/** Folds a trace's humps on so many a turn. */
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

/**
 * How well the turns of a trace repeat each other: the share of the swing within turns that their mean explains. Near 1
 * where the humps a turn and their rhythm are right, little where they are not.
 */
export function foldConsistency({ points, values, humps }: HumpGrid, perTurn: number): number {
  const cells = perTurn * points;
  const turns = Math.floor(humps / perTurn);
  if (turns < 2) return 0;
  const mean = new Float64Array(cells);
  let all = 0;
  for (let turn = 0; turn < turns; turn++) {
    let level = 0;
    for (let i = 0; i < cells; i++) level += (values[turn * cells + i] as number) / cells;
    for (let i = 0; i < cells; i++) {
      const own = (values[turn * cells + i] as number) - level;
      mean[i] = (mean[i] as number) + own / turns;
      all += (own * own) / (turns * cells);
    }
  }
  const explained = mean.reduce((sum, value) => sum + (value * value) / cells, 0);
  // Pure noise explains one part in as many as there are turns.
  return all === 0 ? 0 : Math.max(0, (explained / all - 1 / turns) / (1 - 1 / turns));
}

/** Where in a hump its top and its valley lie, from the middle of all humps, so that bad ones have no say. */
export interface HumpShape {
  readonly top: number;
  readonly valley: number;
}

const shapeHumps = 1500;

function usualShape(amps: ArrayLike<number>, points: number): number[] {
  const humps = Math.floor(amps.length / points);
  const step = Math.max(1, Math.floor(humps / shapeHumps));
  const columns: number[][] = Array.from({ length: points }, () => []);
  for (let hump = 0; hump < humps; hump += step) {
    let mean = 0;
    for (let i = 0; i < points; i++) mean += (amps[hump * points + i] as number) / points;
    for (let i = 0; i < points; i++) columns[i]?.push((amps[hump * points + i] as number) - mean);
  }
  return columns.map(medianOf);
}

export function humpShape(amps: ArrayLike<number>, points: number): HumpShape {
  const shape = usualShape(amps, points);
  return { top: shape.indexOf(Math.max(...shape)), valley: shape.indexOf(Math.min(...shape)) };
}

/** A second bump this tall, as a share of the swing, means that what was taken for one hump holds several. */
const bumpShare = 0.25;

/** True where the usual hump goes up once and down once. */
export function isOneHump(values: Float32Array, points: number): boolean {
  const shape = usualShape(values, points);
  const [low, high] = [Math.min(...shape), Math.max(...shape)];
  const start = shape.indexOf(low);
  let bumps = 0;
  let [foot, crest] = [low, low];
  for (let i = 1; i <= points; i++) {
    const own = shape[(start + i) % points] as number;
    if (own > crest) crest = own;
    if (crest - own > bumpShare * (high - low) && crest - foot > bumpShare * (high - low)) {
      bumps += 1;
      [foot, crest] = [own, own];
    }
    if (own < foot) [foot, crest] = [own, own];
  }
  return bumps <= 1;
}

/** The top of a hump: the mean of the three points about where tops lie, so that noise has no favourite. */
function topOf(amps: ArrayLike<number>, points: number, hump: number, top: number): number {
  const at = hump * points + top;
  const reach = points >= 12 ? 1 : 0;
  let sum = 0;
  for (let i = at - reach; i <= at + reach; i++) sum += amps[(i + amps.length) % amps.length] as number;
  return sum / (2 * reach + 1);
}

/** Height of every hump of a grid over the mean of the valleys beside it, one by one. */
export function singleHeights(grid: HumpGrid, shape: HumpShape): Float64Array {
  const { points, values, humps } = grid;
  // A valley behind the top belongs to this hump; one before it also closes the hump before.
  return Float64Array.from({ length: Math.max(0, humps - 2) }, (_, i) => {
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
