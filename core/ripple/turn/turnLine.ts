import { medianOf } from "../../signal/currentRecording";

/** Iterations of the fit. */
const rounds = 12;
/** A level with one or two harmonics of the turn. */
export interface TurnLine {
  readonly at: (hump: number) => number;
  /** Peak to peak. */
  readonly swing: number;
}

/**
 * The baseline of values along a turn: a level and a number of harmonics, fitted to the least sum of absolute
 * distances (by reweighted least squares), so that a few outliers do not pull it.
 * @param offset position within its ripple of each value
 */
export function turnLine(values: Float64Array, orders: 1 | 2, offset = 0): TurnLine {
  const count = values.length;
  const size = 1 + 2 * orders;
  const row = (hump: number): number[] => {
    const angle = (2 * Math.PI * hump) / count;
    return [1, Math.cos(angle), Math.sin(angle), Math.cos(2 * angle), Math.sin(2 * angle)].slice(0, size);
  };
  const rows = Array.from({ length: count }, (_, hump) => row(hump + offset));
  const spread = medianOf(values.map((value) => Math.abs(value - medianOf(values))));
  const floor = Math.max(1e-9, 0.05 * spread);
  let weights: Float64Array = new Float64Array(count).fill(1);
  let fit: Float64Array = new Float64Array(size);
  for (let round = 0; round < rounds; round++) {
    fit = leastSquares(rows, values, weights);
    weights = weights.map((_, i) => {
      const off = (values[i] as number) - dot(rows[i] as number[], fit);
      return 1 / Math.max(floor, Math.abs(off));
    });
  }
  const at = (hump: number): number => dot(row(hump), fit);
  const swings = Array.from({ length: 64 }, (_, i) => at((i * count) / 64));
  return { at, swing: Math.max(...swings) - Math.min(...swings) };
}

const dot = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] as number) * (b[i] as number);
  return sum;
};

/** Weighted least squares by the normal equations and elimination; there are only a few unknowns. */
function leastSquares(rows: readonly number[][], values: Float64Array, weights: Float64Array): Float64Array {
  const size = rows[0]?.length ?? 0;
  const matrix = Array.from({ length: size }, () => new Float64Array(size + 1));
  rows.forEach((row, i) => {
    for (let a = 0; a < size; a++) {
      const line = matrix[a] as Float64Array;
      const weighed = (weights[i] as number) * (row[a] as number);
      for (let b = 0; b < size; b++) line[b] = (line[b] as number) + weighed * (row[b] as number);
      line[size] = (line[size] as number) + weighed * (values[i] as number);
    }
  });
  for (let a = 0; a < size; a++) {
    const pivot = matrix[a] as Float64Array;
    const own = (pivot[a] as number) || 1e-30;
    for (let b = 0; b < size; b++) {
      if (b === a) continue;
      const line = matrix[b] as Float64Array;
      const times = (line[a] as number) / own;
      for (let c = a; c <= size; c++) line[c] = (line[c] as number) - times * (pivot[c] as number);
    }
  }
  return Float64Array.from(matrix, (line, a) => (line[size] as number) / ((line[a] as number) || 1e-30));
}
