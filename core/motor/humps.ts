import { type Chopping, withoutChopping } from "./chopping";
import { barsFor, humpsPerTurn, possibleHumps } from "./commutator";
import { type CurrentTrace, medianOf, rangeOf, type Stretch } from "./currentTrace";
import { withoutDips } from "./dips";
import {
  type FoldedTurn,
  foldConsistency,
  foldedTurn,
  humpShape,
  isOneHump,
  singleHeights,
} from "./foldedTurn";
import { type HumpGrid, type HumpPhase, humpGrid, humpPhase } from "./humpPhase";
import { fastestHumpHz, type HumpBand, type HumpRhythm, humpRhythm, slowestHumpHz } from "./humpRhythm";
import { type Dropout, runningPart, type StartUp } from "./startUp";
import { enoughHumps, humpLevels, type TurnMark, turnMark } from "./turnMark";

/** What the humps on a motor's current tell; null where it cannot be known, with the reason in `cannot`. */
export interface Humps {
  readonly meanAmps: number;
  readonly peakToPeakAmps: number;
  readonly humpHz: number | null;
  readonly humpsPerTurn: number | null;
  readonly bars: number | null;
  readonly rpm: number | null;
  /** Height of each hump of one turn over the line through the valleys, mean over the turns. */
  readonly humpAmps: readonly number[];
  /** Humps, from 0, well below the others. */
  readonly badHumps: readonly number[];
  readonly verdict: "even" | "uneven" | "missing" | "unclear";
  readonly cannot: readonly string[];
  /** Why the verdict is so. */
  readonly because: string;
  /** Standard error of each hump's height, from its scatter over the turns. */
  readonly errorAmps: readonly number[];
  /** Bars that explain the bad humps, at least: each passes every brush. Null where humps a turn are not known. */
  readonly badBars: number | null;
  readonly turns: number | null;
  /** Swing of the valleys over a turn, peak to peak. */
  readonly wanderAmps: number | null;
  /** One turn, the mean of all: amps by point. */
  readonly turnAmps: readonly number[];
  /** Slowest and fastest rhythm along the trace, humps a second. */
  readonly driftHz: readonly [number, number] | null;
  readonly startUp: StartUp | null;
  readonly dropouts: readonly Dropout[];
  readonly dropoutCount: number;
  readonly chopping: Chopping | null;
  /** The steady part the humps were read from, in seconds from the trace's beginning. */
  readonly steadySeconds: readonly [number, number];
}

export interface HumpsOptions {
  /** Commutator bars, where known. */
  readonly bars?: number | undefined;
  /** Magnet poles, one brush each; 2 unless given. */
  readonly poles?: number | undefined;
  /** Speed by a tachometer, where known, within some 2 %. */
  readonly rpm?: number | undefined;
  /** Speed as the circuit predicts it, within a third or so: keeps the humps from being looked for elsewhere. */
  readonly aboutRpm?: number | undefined;
  /** Frequency of a control's chopping, where known. */
  readonly choppingHz?: number | undefined;
  /** Told the share of the work that is done; returning false stops it. */
  readonly onProgress?: ((share: number) => boolean) | undefined;
}

/** Thrown where the work was stopped from outside. */
export class Stopped extends Error {}

const leastSamples = 64;
const samplesPerHump = 8;
/** A rhythm needs this many samples a hump to be told from its mirror image. */
const samplesForRhythm = 2.5;
const leastTurns = 3;
const mostPoints = 24;
/** Faster sampling than this adds nothing the humps need. */
const enoughHz = 48_000;
/** Humps averaged over while the turn is not known. */
const smoothUnknown = 12;
/** Share of samples at the very top or bottom that means the trace was clipped. */
const clippedShare = 0.004;
const badShare = 0.6;
const missingShare = 0.25;
/** A hump is bad when it lies this many standard errors under the limit, at least. */
const sureErrors = 2.5;
/** Heights less certain than this share of the usual height cannot be judged. */
const surestShare = 0.12;
const slowestRpm = 200;
const fastestRpm = 6500;
/** A mark of the turn is at least this share of a hump's swing. */
const leastMark = 0.006;
/** A tachometer and the humps must agree within this. */
const rpmWithin = 0.04;

function isClipped(amps: Float32Array, { from, to }: Stretch, low: number, high: number): boolean {
  if (high - low <= 0) return false;
  let [atLow, atHigh] = [0, 0];
  for (let i = from; i < to; i++) {
    if (amps[i] === low) atLow += 1;
    if (amps[i] === high) atHigh += 1;
  }
  return Math.max(atLow, atHigh) > Math.max(8, clippedShare * (to - from));
}

/** Fewer samples by whole steps, each the mean of the ones it stands for. */
function thinned(
  { amps, rateHz }: CurrentTrace,
  { from, to }: Stretch,
): { trace: CurrentTrace; every: number } {
  const every = Math.max(1, Math.floor(rateHz / enoughHz));
  if (every === 1) return { trace: { amps: amps.subarray(from, to), rateHz }, every };
  const out = new Float32Array(Math.floor((to - from) / every));
  for (let i = 0; i < out.length; i++) {
    let sum = 0;
    for (let j = 0; j < every; j++) sum += amps[from + i * every + j] as number;
    out[i] = sum / every;
  }
  return { trace: { amps: out, rateHz: rateHz / every }, every };
}

function bandOf({ bars, poles = 2, rpm, aboutRpm }: HumpsOptions): HumpBand {
  const counts = bars === undefined ? possibleHumps(poles) : [humpsPerTurn(bars, poles)];
  const about =
    aboutRpm === undefined ? [slowestRpm, fastestRpm] : [aboutRpm / aboutTimes, aboutRpm * aboutTimes];
  const speeds = rpm === undefined ? about : [rpm * (1 - 2 * rpmWithin), rpm * (1 + 2 * rpmWithin)];
  const low = ((counts[0] ?? 1) * (speeds[0] as number)) / 60;
  const high = ((counts.at(-1) ?? 1) * (speeds[1] as number)) / 60;
  const within = (hz: number): number => Math.max(slowestHumpHz, Math.min(fastestHumpHz, hz));
  return { lowHz: within(low), highHz: Math.max(within(high), within(low) + 1) };
}

/**
 * Reads the humps of a permanent-magnet motor's current. One brush a pole: humps a turn are the least
 * common multiple of bars and poles (12 bars and 2 poles give 12, 11 give 22). A single bad bar passes every
 * brush, so it shows once a brush a turn; that changes the heights, not the rpm. Without bars, rpm or a mark that comes once
 * a turn in the trace itself neither humps a turn nor rpm are told.
 * @throws Stopped when `onProgress` says so
 */
export function readHumps(trace: CurrentTrace, options: HumpsOptions = {}): Humps {
  const { amps, rateHz } = trace;
  const { bars, poles = 2, rpm, onProgress = () => true } = options;
  const told = (share: number): void => {
    if (!onProgress(share)) throw new Stopped();
  };
  told(0);
  const running = runningPart(trace);
  told(0.15);
  const { steady } = running;
  const { mean, low, high } = rangeOf(amps, steady);
  const cannot: string[] = [];
  const perTurnGiven = bars === undefined ? null : humpsPerTurn(bars, poles);
  const base: Omit<Humps, "verdict" | "because"> = {
    meanAmps: mean,
    peakToPeakAmps: high - low,
    humpHz: null,
    humpsPerTurn: perTurnGiven,
    bars: bars ?? null,
    rpm: null,
    humpAmps: [],
    badHumps: [],
    cannot,
    errorAmps: [],
    badBars: null,
    turns: null,
    wanderAmps: null,
    turnAmps: [],
    driftHz: null,
    startUp: running.startUp,
    dropouts: running.dropouts,
    dropoutCount: running.dropoutCount,
    chopping: null,
    steadySeconds: [steady.from / rateHz, steady.to / rateHz],
  };
  const unclear = (reason: string, more: Partial<Humps> = {}): Humps => {
    cannot.push(reason);
    return { ...base, ...more, verdict: "unclear", because: reason };
  };
  if (amps.length < leastSamples)
    return unclear(`too short: ${amps.length} samples, at least ${leastSamples} are needed`);
  if (isClipped(amps, steady, low, high))
    cannot.push("clipped: the trace stops at its top or bottom; take it again on a coarser range");
  if (rpm !== undefined && perTurnGiven !== null) {
    const expected = (rpm * perTurnGiven) / 60;
    if (rateHz < samplesForRhythm * expected) return unclear(tooSlow(rateHz, expected));
  }
  const { trace: plain, chopping, rivals } = withoutChopping(trace, steady, options.choppingHz, perTurnGiven);
  told(0.4);
  const band = bandOf(options);
  if (rivals?.every((hz) => hz > band.lowHz && hz < band.highHz))
    return unclear(
      `two rhythms, ${rivals.map((hz) => `${hz.toFixed(0)} Hz`).join(" and ")}, keep time like a clock: one is a control's chopping; give its frequency, or take a trace at another speed`,
    );
  const { trace: thin } = thinned(plain, steady);
  const whole = { from: 0, to: thin.amps.length };
  const humped = { ...thin, amps: withoutDips(thin.amps, thin.rateHz, whole) };
  const nothing = "no humps stand out: is the motor running, and the clamp round one wire?";
  if (high - low < 1e-9) return unclear(nothing, { chopping });
  const followed = followHumps({ thin, humped, whole, band, perTurn: perTurnGiven, poles });
  told(0.8);
  if (!followed) return unclear(nothing, { chopping });
  const { rhythm, phase: rough, points, grid: roughGrid } = followed;
  const humpHz = frequencyOf(rough.humps, rough.block / thin.rateHz);
  const known = { chopping, humpHz, driftHz: driftOf(rhythm) };
  if (rateHz < samplesPerHump * humpHz)
    return unclear(tooSlow(rateHz, humpHz), { ...known, ...speedOf(humpHz, perTurnGiven) });
  const turn = humpsOfTurn(
    humpHz,
    () => ({
      even: humpLevels(humpGrid(humped.amps, rough, points, enoughHumps)),
      raw: humpLevels(roughGrid),
      swing: swingOf(roughGrid),
    }),
    options,
    cannot,
  );
  told(0.9);
  const grid =
    turn.perTurn !== null && turn.perTurn !== perTurnGiven
      ? humpGrid(thin.amps, humpPhase(humped, whole, rhythm, turn.perTurn), points)
      : roughGrid;
  const result = {
    ...base,
    ...known,
    ...speedOf(humpHz, turn.perTurn),
    bars: turn.bars,
    humpsPerTurn: turn.perTurn,
  };
  const judged = judgedHumps(grid, turn, poles, humpHz, cannot);
  told(1);
  return { ...result, ...judged };
}

/** A prediction may be off by this factor: a tight motor turns slower, a blocked fan faster. */
const aboutTimes = 1.45;

interface Followed {
  readonly rhythm: HumpRhythm;
  readonly phase: HumpPhase;
  readonly points: number;
  readonly grid: HumpGrid;
}

interface ToFollow {
  readonly thin: CurrentTrace;
  /** The same with dips evened out. */
  readonly humped: CurrentTrace;
  readonly whole: Stretch;
  readonly band: HumpBand;
  readonly perTurn: number | null;
  readonly poles: number;
}

/** Turns that repeat each other so well hang on the right rhythm, if a hump is one hump. */
const repeatsWell = 0.85;
/** Rhythms whose turns repeat each other so nearly as well as the best one's are alike. */
const repeatsAlike = 0.9;

/**
 * Finds and follows the humps: by their own line; and where that gives turns that do not repeat each other, by the comb of
 * lines that many bad bars make.
 */
function followHumps({ thin, humped, whole, band, perTurn, poles }: ToFollow): Followed | null {
  const along = (rhythm: HumpRhythm | null, of: CurrentTrace, order: number): Followed | null => {
    if (!rhythm) return null;
    const line = { ...rhythm, hz: rhythm.hz.map((hz) => hz * order) };
    const found = humpPhase(of, whole, line, (perTurn ?? smoothUnknown) * order);
    const phase = order === 1 ? found : { ...found, humps: found.humps.map((humps) => humps / order) };
    const humpHz = frequencyOf(phase.humps, phase.block / thin.rateHz);
    const points = Math.max(1, Math.min(mostPoints, Math.floor(thin.rateHz / humpHz)));
    return { rhythm, phase, points, grid: humpGrid(thin.amps, phase, points) };
  };
  const plain = along(humpRhythm(humped, whole, band), humped, 1);
  if (perTurn === null) return plain;
  const repeats = plain ? foldConsistency(plain.grid, perTurn) : 0;
  if (plain && repeats > repeatsWell && isOneHump(plain.grid.values, plain.points)) return plain;
  const perPole = perTurn / poles;
  const comb = humpRhythm(thin, whole, band, perPole);
  const ways = [
    plain,
    along(comb, thin, 1),
    ...[1, 2].map((line) => along(comb, thin, line / perPole)),
  ].flatMap((way) => (way ? [{ way, repeats: foldConsistency(way.grid, perTurn) }] : []));
  const best = Math.max(...ways.map((way) => way.repeats));
  const fit = ways.filter((way) => way.repeats > repeatsAlike * best);
  const own = fit.find(({ way }) => way === plain);
  if (own && plain && isOneHump(plain.grid.values, plain.points)) return plain;
  // A rhythm several times too slow repeats as well as the right one: the fastest that does so is taken.
  const speedOfWay = ({ way }: (typeof ways)[0]): number =>
    frequencyOf(way.phase.humps, way.phase.block / thin.rateHz);
  return (
    fit.reduce<(typeof ways)[0] | null>(
      (fastest, own) => (fastest === null || speedOfWay(own) > 1.02 * speedOfWay(fastest) ? own : fastest),
      null,
    )?.way ?? null
  );
}

const tooSlow = (rateHz: number, humpHz: number): string =>
  `sampled too slowly for heights: ${Math.round(rateHz)} Hz, at least ${Math.ceil(samplesPerHump * humpHz)} Hz are needed`;

const frequencyOf = (humps: Float64Array, secondsPerEntry: number): number =>
  ((humps.at(-1) ?? 0) - (humps[0] ?? 0)) / Math.max(1e-12, (humps.length - 1) * secondsPerEntry);

const driftOf = ({ hz }: HumpRhythm): [number, number] => [
  hz.reduce((least, value) => Math.min(least, value), Number.POSITIVE_INFINITY),
  hz.reduce((most, value) => Math.max(most, value), 0),
];

const speedOf = (humpHz: number, perTurn: number | null) => ({
  humpsPerTurn: perTurn,
  rpm: perTurn === null ? null : (60 * humpHz) / perTurn,
});

/** Usual swing of a hump, from the middle of them. */
function swingOf({ values, points }: HumpGrid): number {
  const { top, valley } = humpShape(values, points);
  return Math.max(0, medianOf(columnOf(values, points, top)) - medianOf(columnOf(values, points, valley)));
}

const columnOf = (values: Float32Array, points: number, at: number): Float32Array =>
  Float32Array.from(
    { length: Math.min(2000, Math.floor(values.length / points)) },
    (_, hump) => values[hump * points + at] as number,
  );

interface TurnFound {
  readonly perTurn: number | null;
  readonly bars: number | null;
  /** A period the humps repeat with, whatever it is of a turn. */
  readonly period: number | null;
}

/** Humps a turn and bars: as given, or from the speed given, or from a mark that comes once a turn. */
function humpsOfTurn(
  humpHz: number,
  levelsOf: () => { readonly even: Float64Array; readonly raw: Float64Array; readonly swing: number },
  options: HumpsOptions,
  cannot: string[],
): TurnFound {
  const { bars, poles = 2, rpm } = options;
  if (bars !== undefined) {
    const perTurn = humpsPerTurn(bars, poles);
    const own = (60 * humpHz) / perTurn;
    if (rpm !== undefined && Math.abs(own / rpm - 1) > rpmWithin)
      cannot.push(
        `bars and rpm given do not fit each other: the humps make ${Math.round(own)} rpm of ${bars} bars, not ${Math.round(rpm)}`,
      );
    return { perTurn, bars, period: null };
  }
  const possible = possibleHumps(poles);
  if (rpm !== undefined) {
    const exact = (60 * humpHz) / rpm;
    const nearest = possible.reduce((best, count) =>
      Math.abs(count - exact) < Math.abs(best - exact) ? count : best,
    );
    if (Math.abs(nearest / exact - 1) <= rpmWithin)
      return { perTurn: nearest, bars: oneOf(nearest, poles, cannot), period: null };
    cannot.push(
      `the rpm given does not fit: ${exact.toFixed(1)} humps a turn, and no commutator of ${poles} poles has that many`,
    );
    return { perTurn: null, bars: null, period: null };
  }
  const levels = levelsOf();
  const mark: TurnMark = turnMark(levels.even, levels.raw, possible, poles, leastMark * levels.swing);
  if (mark.kind === "once-a-turn")
    return { perTurn: mark.humps, bars: oneOf(mark.humps, poles, cannot), period: null };
  cannot.push(
    mark.kind === "pattern"
      ? `bars not given, and no mark comes once a turn: ${mark.reason}; give bars or rpm`
      : "bars not given: an even current carries no mark of the turn, so neither humps a turn nor rpm follow; give bars or rpm",
  );
  return { perTurn: null, bars: null, period: mark.kind === "pattern" ? mark.humps : null };
}

function oneOf(perTurn: number, poles: number, cannot: string[]): number | null {
  const fitting = barsFor(perTurn, poles);
  if (fitting.length === 1) return fitting[0] ?? null;
  cannot.push(`bars: ${perTurn} humps a turn come from ${fitting.join(" or ")} bars alike`);
  return null;
}

type Judged = Pick<
  Humps,
  | "humpAmps"
  | "errorAmps"
  | "badHumps"
  | "badBars"
  | "verdict"
  | "because"
  | "turns"
  | "wanderAmps"
  | "turnAmps"
  | "cannot"
>;

function judgedHumps(
  grid: HumpGrid,
  turn: TurnFound,
  poles: number,
  humpHz: number,
  cannot: string[],
): Judged {
  const none = {
    humpAmps: [],
    errorAmps: [],
    badHumps: [],
    badBars: null,
    turns: null,
    wanderAmps: null,
    turnAmps: [],
    cannot,
  };
  const period = turn.perTurn ?? turn.period;
  const turns = period === null ? 0 : Math.floor(grid.humps / period);
  if (turn.perTurn !== null && turns < leastTurns) {
    const seconds = (((leastTurns + 1) * turn.perTurn) / humpHz).toFixed(2);
    cannot.push(
      `too short for hump by hump: ${(grid.humps / turn.perTurn).toFixed(1)} turns, take at least ${seconds} s`,
    );
  }
  if (period === null || turns < leastTurns) return { ...none, ...judgedSingly(grid, cannot) };
  const folded = foldedTurn(grid, period);
  const { verdict, because, badHumps } = judgedFold(folded, cannot);
  if (turn.perTurn === null) return { ...none, verdict, because };
  return {
    humpAmps: folded.humpAmps,
    errorAmps: folded.errorAmps,
    badHumps,
    badBars: Math.ceil(runsOf(badHumps, turn.perTurn) / poles),
    turns: folded.turns,
    wanderAmps: folded.wanderAmps,
    turnAmps: folded.amps,
    verdict,
    because,
    cannot,
  };
}

/** Runs of neighbouring humps round the turn: the current takes a hump or two to come back from a bad bar. */
const runsOf = (humps: readonly number[], perTurn: number): number =>
  humps.length === perTurn
    ? perTurn
    : humps.filter((hump) => !humps.includes((hump + perTurn - 1) % perTurn)).length;

/** The usual height: the middle one, or where half the humps or more are bad, that of the good ones. */
function usualHeight(heights: readonly number[]): number {
  const sorted = Float64Array.from(heights).sort();
  const middle = sorted[Math.floor(0.5 * sorted.length)] ?? 0;
  const upper = sorted[Math.floor(0.75 * sorted.length)] ?? 0;
  return middle < badShare * upper ? upper : middle;
}

function judgedFold(
  { humpAmps, errorAmps, turns }: FoldedTurn,
  cannot: string[],
): Pick<Humps, "verdict" | "because" | "badHumps"> {
  const usual = usualHeight(humpAmps);
  if (!(usual > 0) || medianOf(errorAmps) > surestShare * usual) {
    const reason = "too noisy for hump by hump: a longer trace, or a clamp on a finer range";
    cannot.push(reason);
    return { verdict: "unclear", because: reason, badHumps: [] };
  }
  const badHumps = humpAmps.flatMap((height, hump) =>
    badShare * usual - height > sureErrors * (errorAmps[hump] ?? 0) ? [hump] : [],
  );
  const least = Math.min(...humpAmps);
  const share = (height: number): string => `${Math.round((100 * Math.max(0, height)) / usual)} %`;
  const over = `over ${turns} turns`;
  if (badHumps.length === 0)
    return { verdict: "even", because: `every hump at least ${share(least)} of the usual ${over}`, badHumps };
  const names = badHumps.map((hump) => hump + 1).join(", ");
  return {
    verdict: least < missingShare * usual ? "missing" : "uneven",
    because: `hump ${names} of the turn at ${share(least)} of the usual or a little more, ${over}`,
    badHumps,
  };
}

/** Hump after hump where the turn is not known: each by itself, so only a quiet trace can be judged. */
function judgedSingly(grid: HumpGrid, cannot: string[]): Pick<Humps, "verdict" | "because"> {
  const heights = singleHeights(grid, humpShape(grid.values, grid.points));
  const usual = medianOf(heights);
  const scatter = 1.48 * medianOf(heights.map((height) => Math.abs(height - usual)));
  if (heights.length < 12 || !(usual > 0) || scatter > surestShare * usual) {
    const reason =
      "too noisy or too short to judge humps one by one; with the bars given they are averaged over turns";
    cannot.push(reason);
    return { verdict: "unclear", because: reason };
  }
  const sorted = Float64Array.from(heights).sort();
  const weak = sorted[Math.floor(sorted.length / 60)] ?? 0;
  const share = Math.round((100 * Math.max(0, weak)) / usual);
  const verdict = weak < missingShare * usual ? "missing" : weak < badShare * usual ? "uneven" : "even";
  return {
    verdict,
    because: `one hump in sixty at ${share} % of the usual or less, of ${heights.length} looked at one by one`,
  };
}
