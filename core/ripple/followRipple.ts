import { humpsPerTurn, possibleHumps } from "../motor/commutator";
import type { CurrentRecording, Stretch } from "../signal/currentRecording";
import { type HumpGrid, humpGrid } from "./rhythm/humpGrid";
import { type HumpPhase, humpPhase } from "./rhythm/humpPhase";
import {
  fastestHumpHz,
  type HumpBand,
  type HumpRhythm,
  humpRhythm,
  slowestHumpHz,
} from "./rhythm/humpRhythm";
import type { RippleOptions } from "./rippleOptions";
import { timesTooSlow } from "./timesTooSlow";
import { foldConsistency, isOneHump } from "./turn/foldedTurn";
import { rpmWithin } from "./turn/turnCount";

/** Most points per ripple. */
const mostPoints = 24;
/** Number of ripples averaged while the turn is unknown. */
const smoothUnknown = 12;
/** Slowest speed of a blower motor that is considered, in rpm. */
const slowestRpm = 200;
const fastestRpm = 6500;
/** Largest factor between a predicted and the real speed: a tight motor turns slower, a blocked fan faster. */
const aboutTimes = 1.45;

/** The range in which the ripple's rhythm is searched, by what is known of the motor. */
export function bandOf({ bars, poles = 2, rpm, aboutRpm }: RippleOptions): HumpBand {
  const counts = bars === undefined ? possibleHumps(poles) : [humpsPerTurn(bars, poles)];
  const about =
    aboutRpm === undefined ? [slowestRpm, fastestRpm] : [aboutRpm / aboutTimes, aboutRpm * aboutTimes];
  const speeds = rpm === undefined ? about : [rpm * (1 - 2 * rpmWithin), rpm * (1 + 2 * rpmWithin)];
  const low = ((counts[0] ?? 1) * (speeds[0] as number)) / 60;
  const high = ((counts.at(-1) ?? 1) * (speeds[1] as number)) / 60;
  const within = (hz: number): number => Math.max(slowestHumpHz, Math.min(fastestHumpHz, hz));
  return { lowHz: within(low), highHz: Math.max(within(high), within(low) + 1) };
}

const frequencyOf = (ripple: Float64Array, secondsPerEntry: number): number =>
  ((ripple.at(-1) ?? 0) - (ripple[0] ?? 0)) / Math.max(1e-12, (ripple.length - 1) * secondsPerEntry);

/** The ripples followed through a recording, with the recording sampled on a grid of them. */
export interface Followed {
  readonly rhythm: HumpRhythm;
  /** Ripples per second, mean of the whole. */
  readonly humpHz: number;
  readonly phase: HumpPhase;
  readonly points: number;
  readonly grid: HumpGrid;
}

export interface ToFollow {
  readonly thin: CurrentRecording;
  /** The same with dips removed. */
  readonly humped: CurrentRecording;
  readonly whole: Stretch;
  readonly band: HumpBand;
  readonly perTurn: number | null;
  readonly poles: number;
}

/**
 * One way to follow the ripples: the recording to use, the multiple of the ripple frequency to lock on to, and how many
 * times faster than that the ripples really are.
 */
interface Way {
  readonly rhythm: HumpRhythm;
  readonly of: CurrentRecording;
  readonly line: number;
  readonly times: number;
}
interface Tried {
  readonly way: Way;
  readonly followed: Followed;
  /** The share of the variation that the turns have in common. */
  readonly repeats: number;
}

/** Correlation between turns from which the rhythm is right, provided one grid ripple is one ripple. */
const repeatsWell = 0.85;
/** Correlation between turns below which the rhythm is not a turn. */
const leastRepeats = 0.4;
/** Correlation needed if only a comb was found and no single line. */
const repeatsSurely = 0.92;
/** Largest ratio of two rhythms that are the same. */
const sameRhythm = 1.02;
/** Rhythms are equally good if one repeats at least this share as well as the other. */
const repeatsAlike = 0.9;
/** Samples of a long recording on which the alternatives are tried; the chosen one is followed through all of it. */
const triedSamples = 1_000_000;

/**
 * Finds and follows the ripples by their own line. If the turns do not repeat each other then, it uses the comb of
 * lines that many bad bars make.
 */
export function followRipple(to: ToFollow): Followed | null {
  const { humped, whole, band, perTurn } = to;
  const rhythm = humpRhythm(humped, whole, band);
  const plain = rhythm && { rhythm, of: humped, line: 1, times: 1 };
  const tried = { from: whole.from, to: Math.min(whole.to, whole.from + triedSamples) };
  const taken = perTurn === null ? plain : bestWay(to, perTurn, plain, tried);
  return taken && along(taken, to, whole);
}

function along({ rhythm, of, line, times }: Way, { thin, perTurn }: ToFollow, stretch: Stretch): Followed {
  const followed = { ...rhythm, hz: rhythm.hz.map((hz) => hz * line) };
  const found = humpPhase(of, stretch, followed, (perTurn ?? smoothUnknown) * line);
  const each = times / line;
  const phase = each === 1 ? found : { ...found, humps: found.humps.map((ripple) => ripple * each) };
  const humpHz = frequencyOf(phase.humps, phase.block / thin.rateHz);
  const points = Math.max(1, Math.min(mostPoints, Math.floor(thin.rateHz / humpHz)));
  const own = times === 1 ? rhythm : { ...rhythm, hz: rhythm.hz.map((hz) => hz * times) };
  return { rhythm: own, humpHz, phase, points, grid: humpGrid(thin.amps, phase, points) };
}

/** The way whose turns repeat each other best, tried on a stretch. */
function bestWay(to: ToFollow, perTurn: number, plain: Way | null, stretch: Stretch): Way | null {
  const { thin, whole, band, poles } = to;
  const perPole = perTurn / poles;
  const tryOut = (way: Way): Tried => {
    const followed = along(way, to, stretch);
    return { way, followed, repeats: foldConsistency(followed.grid, perPole) };
  };
  const quickened = ({ way, followed }: Tried): Way => {
    const most = band.highHz / followed.humpHz;
    return { ...way, times: way.times * timesTooSlow(followed.grid, perTurn, poles, most) };
  };
  const isOne = ({ followed }: Tried): boolean => isOneHump(followed.grid.values, followed.points);
  const own = plain && tryOut(plain);
  if (own && own.repeats > repeatsWell && isOne(own)) return quickened(own);
  const comb = humpRhythm(thin, whole, band, perPole);
  const lines = comb ? [1, 1 / perPole, 2 / perPole] : [];
  const ways = [
    ...(own ? [own] : []),
    ...lines.map((line) => tryOut({ rhythm: comb as HumpRhythm, of: thin, line, times: 1 })),
  ];
  // A bad bar repeats once per pole. If no ripples stand out, lines at half or a third of that frequency are found as
  // well.
  if (!own)
    for (const { way, repeats } of ways.filter((own) => own.repeats > repeatsSurely))
      for (const times of [2, 3]) {
        const fast = tryOut({ ...way, times });
        if (fast.followed.humpHz < band.highHz && fast.repeats > repeatsAlike * repeats)
          ways.push({ ...fast, repeats });
      }
  const best = Math.max(...ways.map((way) => way.repeats));
  // The comb search always finds something. Turns that do not repeat each other confirm it no better than noise.
  if (best < (own ? leastRepeats : repeatsSurely)) return plain;
  const fit = ways.filter((way) => way.repeats > repeatsAlike * best);
  if (own && fit.includes(own) && isOne(own)) return plain;
  // A rhythm several times too slow repeats as well as the right one, so the fastest one that repeats is used.
  const fastest = fit.reduce((fast, way) =>
    way.followed.humpHz > sameRhythm * fast.followed.humpHz ? way : fast,
  );
  return quickened(fastest);
}
