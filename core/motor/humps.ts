import { spectrumOf, strongestHz } from "./spectrum";

/** A motor's current against time, evenly sampled. */
export interface CurrentTrace {
  readonly amps: Float64Array;
  readonly rateHz: number;
}

/** What the humps on a motor's current tell; null where it cannot be known, with the reason in `cannot`. */
export interface Humps {
  readonly meanAmps: number;
  readonly peakToPeakAmps: number;
  readonly humpHz: number | null;
  readonly humpsPerTurn: number | null;
  readonly bars: number | null;
  readonly rpm: number | null;
  /** Height of each hump of one turn, peak over its valleys, mean over the turns. */
  readonly humpAmps: readonly number[];
  /** Humps, from 0, well below the others. */
  readonly badHumps: readonly number[];
  readonly verdict: "even" | "uneven" | "missing" | "unclear";
  readonly cannot: readonly string[];
}

export interface HumpsOptions {
  /** Commutator bars, where known. */
  readonly bars?: number | undefined;
  /** Magnet poles, one brush each; 2 unless given. */
  readonly poles?: number | undefined;
}

/** Slower than this nothing on a blower motor's current is a hump. */
const slowestHz = 25;
/** A hump frequency stands this far above the middle of the spectrum. */
const standsOut = 12;
const samplesPerHump = 8;
const leastTurns = 3;
const mostTurns = 200;
/** Share of samples at the very top or bottom that means the trace was clipped. */
const clippedShare = 0.004;
const badShare = 0.6;
const missingShare = 0.25;

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
export const humpsPerTurn = (bars: number, poles: number): number => (bars * poles) / gcd(bars, poles);

const mean = (values: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] as number;
  return sum / Math.max(1, values.length);
};

function isClipped(amps: Float64Array, low: number, high: number): boolean {
  if (high - low <= 0) return false;
  let atEnds = 0;
  for (const value of amps) if (value === low || value === high) atEnds += 1;
  return atEnds > Math.max(8, clippedShare * amps.length);
}

/** Heights of successive humps: the tallest sample near each expected place over the valleys beside it. */
function humpHeights({ amps, rateHz }: CurrentTrace, humpHz: number, most: number): number[] {
  const period = rateHz / humpHz;
  const peakNear = (centre: number): number => {
    let best = Math.max(0, Math.round(centre - 0.3 * period));
    for (let i = best; i <= Math.min(amps.length - 1, centre + 0.3 * period); i++)
      if ((amps[i] as number) > (amps[best] as number)) best = i;
    return best;
  };
  const valley = (from: number, to: number): number => {
    let low = Number.POSITIVE_INFINITY;
    for (let i = Math.max(0, Math.round(from)); i <= Math.min(amps.length - 1, to); i++)
      low = Math.min(low, amps[i] as number);
    return low;
  };
  // The grid is tied to the tallest humps, so that a missing one does not pull it astray.
  let at = peakNear(period);
  for (let trial = peakNear(period); trial < Math.min(amps.length, 40 * period); trial += period) {
    const found = peakNear(trial);
    if ((amps[found] as number) > (amps[at] as number)) at = found;
  }
  const first = at - Math.floor(at / period) * period;
  const heights: number[] = [];
  for (let i = 0; i < most; i++) {
    const centre = first + i * period;
    if (centre + period > amps.length) break;
    const peak = peakNear(centre);
    const sides = [valley(peak - 0.7 * period, peak), valley(peak, peak + 0.7 * period)];
    heights.push((amps[peak] as number) - mean(sides));
  }
  return heights;
}

/**
 * Reads the humps of a permanent-magnet motor's current. One brush a pole: humps a turn are the least
 * common multiple of bars and poles (12 bars and 2 poles give 12, 11 give 22). A single bad bar passes every
 * brush, so it shows once a brush a turn; that changes the heights, not the rpm.
 */
export function readHumps(trace: CurrentTrace, { bars, poles = 2 }: HumpsOptions = {}): Humps {
  const { amps, rateHz } = trace;
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (const value of amps) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  const cannot: string[] = [];
  const base = { meanAmps: mean(amps), peakToPeakAmps: amps.length > 0 ? high - low : 0, bars: bars ?? null };
  const unclear = (reason: string): Humps => ({
    ...base,
    humpHz: null,
    humpsPerTurn: bars === undefined ? null : humpsPerTurn(bars, poles),
    rpm: null,
    humpAmps: [],
    badHumps: [],
    verdict: "unclear",
    cannot: [...cannot, reason],
  });
  if (amps.length < 64) return unclear(`too short: ${amps.length} samples, at least 64 are needed`);
  if (isClipped(amps, low, high))
    cannot.push("clipped: the trace stops at its top or bottom; take it again on a coarser range");
  const found = strongestHz(spectrumOf(amps, rateHz), slowestHz);
  if (!found || found.overMedian < standsOut || high - low < 1e-9)
    return unclear("no humps stand out: is the motor running, and the clamp round one wire?");
  const humpHz = found.hz;
  if (rateHz < samplesPerHump * humpHz) {
    const need = Math.ceil(samplesPerHump * humpHz);
    return {
      ...unclear(`sampled too slowly for heights: ${rateHz} Hz, at least ${need} Hz are needed`),
      ...speedOf(humpHz, bars, poles),
    };
  }
  const perTurn = bars === undefined ? null : humpsPerTurn(bars, poles);
  if (perTurn === null)
    cannot.push("bars not given: neither humps a turn nor rpm follow from the current alone");
  const heights = humpHeights(trace, humpHz, (perTurn ?? 30) * mostTurns);
  const turns = heights.length / (perTurn ?? 1);
  if (perTurn !== null && turns < leastTurns) {
    const seconds = ((leastTurns * perTurn) / humpHz).toFixed(2);
    cannot.push(`too short for hump by hump: ${turns.toFixed(1)} turns, take at least ${seconds} s`);
  }
  const humpAmps = perTurn !== null && turns >= leastTurns ? folded(heights, perTurn) : [];
  return {
    ...base,
    ...speedOf(humpHz, bars, poles),
    ...judged(humpAmps.length > 0 ? humpAmps : heights, humpAmps),
    cannot,
  };
}

function speedOf(humpHz: number, bars: number | undefined, poles: number) {
  const perTurn = bars === undefined ? null : humpsPerTurn(bars, poles);
  return { humpHz, humpsPerTurn: perTurn, rpm: perTurn === null ? null : (60 * humpHz) / perTurn };
}

/** Mean height of each hump of a turn. */
function folded(heights: readonly number[], perTurn: number): number[] {
  return Array.from({ length: perTurn }, (_, hump) => mean(heights.filter((__, i) => i % perTurn === hump)));
}

function judged(
  heights: readonly number[],
  humpAmps: readonly number[],
): Pick<Humps, "humpAmps" | "badHumps" | "verdict"> {
  const sorted = [...heights].sort((a, b) => a - b);
  const middle = sorted[Math.floor(sorted.length / 2)] ?? 0;
  const least = sorted[0] ?? 0;
  const badHumps = humpAmps.flatMap((height, hump) => (height < badShare * middle ? [hump] : []));
  // Hump by hump the mean over turns is judged; unfolded, a tenth of the humps must be bad.
  const weak = humpAmps.length > 0 ? least : (sorted[Math.floor(sorted.length / 20)] ?? 0);
  const verdict = weak < missingShare * middle ? "missing" : weak < badShare * middle ? "uneven" : "even";
  return { humpAmps, badHumps, verdict };
}
