import { humpsPerTurn, possibleHumps } from "./commutator";
import type { CurrentTrace, Stretch } from "./currentTrace";
import { foldConsistency, isOneHump } from "./foldedTurn";
import { type HumpGrid, type HumpPhase, humpGrid, humpPhase } from "./humpPhase";
import { fastestHumpHz, type HumpBand, type HumpRhythm, humpRhythm, slowestHumpHz } from "./humpRhythm";
import type { HumpsOptions } from "./humps";
import { timesTooSlow } from "./timesTooSlow";
import { rpmWithin } from "./turnCount";

/** Points a hump at most. */
const mostPoints = 24;
/** Humps averaged over while the turn is not known. */
const smoothUnknown = 12;
const slowestRpm = 200;
const fastestRpm = 6500;
/** A prediction may be off by this factor: a tight motor turns slower, a blocked fan faster. */
const aboutTimes = 1.45;

/** Where the humps' rhythm is looked for, by what is known of the motor. */
export function bandOf({ bars, poles = 2, rpm, aboutRpm }: HumpsOptions): HumpBand {
  const counts = bars === undefined ? possibleHumps(poles) : [humpsPerTurn(bars, poles)];
  const about =
    aboutRpm === undefined ? [slowestRpm, fastestRpm] : [aboutRpm / aboutTimes, aboutRpm * aboutTimes];
  const speeds = rpm === undefined ? about : [rpm * (1 - 2 * rpmWithin), rpm * (1 + 2 * rpmWithin)];
  const low = ((counts[0] ?? 1) * (speeds[0] as number)) / 60;
  const high = ((counts.at(-1) ?? 1) * (speeds[1] as number)) / 60;
  const within = (hz: number): number => Math.max(slowestHumpHz, Math.min(fastestHumpHz, hz));
  return { lowHz: within(low), highHz: Math.max(within(high), within(low) + 1) };
}

const frequencyOf = (humps: Float64Array, secondsPerEntry: number): number =>
  ((humps.at(-1) ?? 0) - (humps[0] ?? 0)) / Math.max(1e-12, (humps.length - 1) * secondsPerEntry);

/** The humps followed through a trace, and the trace laid on a grid of them. */
export interface Followed {
  readonly rhythm: HumpRhythm;
  /** Humps a second, the mean of the whole. */
  readonly humpHz: number;
  readonly phase: HumpPhase;
  readonly points: number;
  readonly grid: HumpGrid;
}

export interface ToFollow {
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
/** Turns that repeat each other less than this are no turns. */
const leastRepeats = 0.4;
/** Where no humps stand out and only a comb does, its turns must repeat each other so well. */
const repeatsSurely = 0.92;
/** Rhythms nearer to each other than this factor are one. */
const sameRhythm = 1.02;
/** Rhythms whose turns repeat each other so nearly as well as the best one's are alike. */
const repeatsAlike = 0.9;

/**
 * Finds and follows the humps: by their own line; and where that gives turns that do not repeat each other, by the comb of
 * lines that many bad bars make.
 */
export function followHumps({ thin, humped, whole, band, perTurn, poles }: ToFollow): Followed | null {
  const along = (rhythm: HumpRhythm | null, of: CurrentTrace, order: number): Followed | null => {
    if (!rhythm) return null;
    const line = { ...rhythm, hz: rhythm.hz.map((hz) => hz * order) };
    const found = humpPhase(of, whole, line, (perTurn ?? smoothUnknown) * order);
    const phase = order === 1 ? found : { ...found, humps: found.humps.map((humps) => humps / order) };
    const humpHz = frequencyOf(phase.humps, phase.block / thin.rateHz);
    const points = Math.max(1, Math.min(mostPoints, Math.floor(thin.rateHz / humpHz)));
    return { rhythm, humpHz, phase, points, grid: humpGrid(thin.amps, phase, points) };
  };
  const timesAsFast = ({ rhythm, phase, humpHz }: Followed, times: number): Followed => {
    const fast = { ...phase, humps: phase.humps.map((humps) => humps * times) };
    const points = Math.max(1, Math.min(mostPoints, Math.floor(thin.rateHz / (humpHz * times))));
    const own = { ...rhythm, hz: rhythm.hz.map((hz) => hz * times) };
    return {
      rhythm: own,
      humpHz: humpHz * times,
      phase: fast,
      points,
      grid: humpGrid(thin.amps, fast, points),
    };
  };
  const plain = along(humpRhythm(humped, whole, band), humped, 1);
  if (perTurn === null) return plain;
  const perPole = perTurn / poles;
  const quickened = (way: Followed): Followed => {
    const times = timesTooSlow(way.grid, perTurn, poles, band.highHz / way.humpHz);
    return times === 1 ? way : timesAsFast(way, times);
  };
  const repeats = plain ? foldConsistency(plain.grid, perTurn) : 0;
  if (plain && repeats > repeatsWell && isOneHump(plain.grid.values, plain.points)) return quickened(plain);
  const comb = humpRhythm(thin, whole, band, perPole);
  const ways = [
    plain,
    along(comb, thin, 1),
    ...[1, 2].map((line) => along(comb, thin, line / perPole)),
  ].flatMap((way) => (way ? [{ way, repeats: foldConsistency(way.grid, perTurn) }] : []));
  // What a bad bar makes comes once a pole; where no humps stand out, lines at half or a third of that are met as well.
  if (!plain)
    for (const { way, repeats } of [...ways])
      for (const times of [2, 3]) {
        const fast = timesAsFast(way, times);
        if (
          repeats > repeatsSurely &&
          fast.humpHz < band.highHz &&
          foldConsistency(fast.grid, perPole) > repeatsAlike * repeats
        )
          ways.push({ way: fast, repeats });
      }
  const best = Math.max(...ways.map((way) => way.repeats));
  // The comb finds lines in anything: turns that do not repeat each other bear it out as little as noise does.
  if (best < (plain ? leastRepeats : repeatsSurely)) return plain;
  const fit = ways.filter((way) => way.repeats > repeatsAlike * best).map(({ way }) => way);
  if (plain && fit.includes(plain) && isOneHump(plain.grid.values, plain.points)) return plain;
  // A rhythm several times too slow repeats as well as the right one: the fastest that does so is taken.
  const fastest = fit.reduce<Followed | null>(
    (own, way) => (own === null || way.humpHz > sameRhythm * own.humpHz ? way : own),
    null,
  );
  return fastest && quickened(fastest);
}
