const newtonRounds = 60;
const newtonVolts = 1e-10;

/** Current a port takes less than its stand-in resistance would, and its slope, at a voltage. */
type Relief = (port: number, volts: number) => { amps: number; slope: number };

/**
 * Solves v = open + Z j(v) for a few ports by damped Newton.
 * @returns the currents j
 */
export function newtonPorts(
  open: readonly number[],
  impedance: readonly (readonly number[])[],
  relief: Relief,
): number[] {
  const count = open.length;
  let volts = open.slice();
  const evaluate = (at: readonly number[]) => {
    const own = at.map((volt, i) => relief(i, volt));
    const error = at.map((volt, i) => {
      let sum = volt - (open[i] as number);
      for (let j = 0; j < count; j++) sum -= (impedance[j]?.[i] as number) * (own[j]?.amps as number);
      return sum;
    });
    return { own, error, size: Math.max(0, ...error.map(Math.abs)) };
  };
  let now = evaluate(volts);
  for (let round = 0; round < newtonRounds && now.size > newtonVolts; round++) {
    const slopes = now.own.map(({ slope }) => slope);
    const jacobian = volts.map((_, i) =>
      volts.map((_, j) => (i === j ? 1 : 0) - (impedance[j]?.[i] as number) * (slopes[j] as number)),
    );
    const step = solveSmall(jacobian, now.error);
    let scale = 1;
    for (let halving = 0; halving < 30; halving++) {
      const next = volts.map((volt, i) => volt - scale * (step[i] as number));
      const trial = evaluate(next);
      if (trial.size < now.size || halving === 29) {
        volts = next;
        now = trial;
        break;
      }
      scale /= 2;
    }
  }
  return now.own.map(({ amps }) => amps);
}

/** Gaussian elimination with partial pivoting for the handful of ports. */
function solveSmall(matrix: number[][], right: readonly number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i] as number]);
  const count = rows.length;
  for (let column = 0; column < count; column++) {
    let best = column;
    for (let row = column + 1; row < count; row++) {
      if (Math.abs(rows[row]?.[column] as number) > Math.abs(rows[best]?.[column] as number)) best = row;
    }
    [rows[column], rows[best]] = [rows[best] as number[], rows[column] as number[]];
    const pivotRow = rows[column] as number[];
    for (let row = column + 1; row < count; row++) {
      const own = rows[row] as number[];
      const factor = (own[column] as number) / (pivotRow[column] as number);
      for (let j = column; j <= count; j++) own[j] = (own[j] as number) - factor * (pivotRow[j] as number);
    }
  }
  const x = new Array<number>(count).fill(0);
  for (let row = count - 1; row >= 0; row--) {
    let sum = rows[row]?.[count] as number;
    for (let j = row + 1; j < count; j++) sum -= (rows[row]?.[j] as number) * (x[j] as number);
    x[row] = sum / (rows[row]?.[row] as number);
  }
  return x;
}
