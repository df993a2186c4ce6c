import { type CurrentRecording, medianOf, rangeOf, type Stretch } from "../signal/currentRecording";

/** The current while the motor ran up to speed. */
export interface StartUp {
  readonly inrushAmps: number;
  /** Time of the inrush peak. */
  readonly atSeconds: number;
  /** From the inrush until the current stays within a twelfth of its settled value. */
  readonly settleSeconds: number;
}

/** A stretch in which the running motor lost its current. */
export interface Dropout {
  readonly atSeconds: number;
  readonly seconds: number;
}

export interface RunningPart {
  /** The samples in which the motor runs steadily. */
  readonly steady: Stretch;
  readonly startUp: StartUp | null;
  readonly dropouts: readonly Dropout[];
  readonly dropoutCount: number;
}

const mostBlocks = 4000;
const leastBlockSeconds = 0.004;
/** A recording begins from rest if its first current is below this share of the settled one. */
const standingShare = 0.15;
const inrushShare = 1.25;
const settledWithin = 1 / 12;
/** Blocks that must lie within the settled band one after another. */
const settledBlocks = 6;
/** Below this share of the settled current the circuit is open. */
const lostShare = 0.08;
const leastLostSeconds = 0.0003;
const mostListed = 50;

/**
 * Finds the inrush, the steady stretch and the moments without current. A dead spot shows as a start without current,
 * a worn commutator as dropouts while running.
 */
export function runningPart({ amps, rateHz }: CurrentRecording): RunningPart {
  const count = amps.length;
  const block = Math.max(1, Math.ceil(count / mostBlocks), Math.round(leastBlockSeconds * rateHz));
  const blocks = Math.floor(count / block);
  const whole = { steady: { from: 0, to: count }, startUp: null };
  if (blocks < 3 * settledBlocks) return { ...whole, ...dropoutsIn(amps, rateHz, whole.steady) };
  const level = Float64Array.from(
    { length: blocks },
    (_, i) => rangeOf(amps, { from: i * block, to: (i + 1) * block }).mean,
  );
  const settled = medianOf(level.subarray(Math.floor(blocks / 2)));
  if (!(settled > 0)) return { ...whole, dropouts: [], dropoutCount: 0 };
  let last = blocks;
  while (last > 1 && (level[last - 1] as number) < 0.5 * settled) last -= 1;
  const to = last === blocks ? count : last * block;
  const begins = Math.max(
    0,
    level.findIndex((value) => value > standingShare * settled),
  );
  const half = level.subarray(0, Math.ceil(blocks / 2));
  const peak = half.reduce((best, value, i) => (value > (half[best] as number) ? i : best), begins);
  if (begins === 0 && (half[peak] as number) < inrushShare * settled) {
    const steady = { from: 0, to };
    return { steady, startUp: null, ...dropoutsIn(amps, rateHz, steady) };
  }
  let from = Math.max(begins, peak);
  let within = 0;
  while (from < last && within < settledBlocks) {
    within = Math.abs((level[from] as number) / settled - 1) < settledWithin ? within + 1 : 0;
    from += 1;
  }
  const { high } = rangeOf(amps, {
    from: Math.max(0, begins - 1) * block,
    to: Math.min(count, from * block),
  });
  const steadyFrom = (from - within) * block;
  const startUp =
    high > inrushShare * settled
      ? {
          inrushAmps: high,
          atSeconds: (begins * block) / rateHz,
          settleSeconds: Math.max(0, steadyFrom - begins * block) / rateHz,
        }
      : null;
  const steady = to - steadyFrom > count / 20 ? { from: steadyFrom, to } : { from: 0, to };
  return { steady, startUp, ...dropoutsIn(amps, rateHz, steady) };
}

function dropoutsIn(amps: Float32Array, rateHz: number, { from, to }: Stretch) {
  const { mean } = rangeOf(amps, { from, to });
  const limit = lostShare * mean;
  const least = Math.max(2, leastLostSeconds * rateHz);
  const dropouts: Dropout[] = [];
  let dropoutCount = 0;
  if (!(mean > 0)) return { dropouts, dropoutCount };
  for (let i = from; i < to; i++) {
    if ((amps[i] as number) >= limit) continue;
    const began = i;
    while (i < to && (amps[i] as number) < limit) i += 1;
    if (i - began < least) continue;
    dropoutCount += 1;
    if (dropouts.length < mostListed)
      dropouts.push({ atSeconds: began / rateHz, seconds: (i - began) / rateHz });
  }
  return { dropouts, dropoutCount };
}
