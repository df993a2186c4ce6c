import { humpsPerTurn } from "../motor/commutator";
import { type CurrentRecording, rangeOf, type Stretch } from "../signal/currentRecording";
import { withoutChopping } from "./chopping/chopping";
import { withoutDips } from "./dips";
import { bandOf, followRipple } from "./followRipple";
import { judgedRipple } from "./judgement";
import { type HumpGrid, humpGrid } from "./rhythm/humpGrid";
import { humpPhase } from "./rhythm/humpPhase";
import type { HumpRhythm } from "./rhythm/humpRhythm";
import { type RhythmDoubt, rhythmDoubt } from "./rhythmDoubt";
import type { RippleOptions } from "./rippleOptions";
import type { RippleReading } from "./rippleReading";
import type { RippleReason } from "./rippleReason";
import { runningPart } from "./startUp";
import { turnCount } from "./turn/turnCount";
import { enoughHumps } from "./turn/turnMark";

const leastSamples = 64;
const samplesPerHump = 8;
/** Fewest samples per ripple with which a rhythm can be told from its alias. */
const samplesForRhythm = 2.5;
/** Samples per ripple beyond which more add nothing. */
const enoughHz = 48_000;
/**
 * Amps that no blower's fuse passes for a second (common practice, no source): 40 A fuses carry twice their rating
 * that long.
 */
const mostMeanAmps = 100;
/** Share of samples at the very top or bottom that means the recording was clipped. */
const clippedShare = 0.004;
function isClipped(amps: Float32Array, { from, to }: Stretch, low: number, high: number): boolean {
  if (high - low <= 0) return false;
  let [atLow, atHigh] = [0, 0];
  for (let i = from; i < to; i++) {
    if (amps[i] === low) atLow += 1;
    if (amps[i] === high) atHigh += 1;
  }
  return Math.max(atLow, atHigh) > Math.max(8, clippedShare * (to - from));
}

/** Reduces the sampling rate by a whole factor; each sample is the mean of those it replaces. */
function thinned({ amps, rateHz }: CurrentRecording, { from, to }: Stretch): CurrentRecording {
  const every = Math.max(1, Math.floor(rateHz / enoughHz));
  if (every === 1) return { amps: amps.subarray(from, to), rateHz };
  const out = new Float32Array(Math.floor((to - from) / every));
  for (let i = 0; i < out.length; i++) {
    let sum = 0;
    for (let j = 0; j < every; j++) sum += amps[from + i * every + j] as number;
    out[i] = sum / every;
  }
  return { amps: out, rateHz: rateHz / every };
}

/** What a reading holds before its rhythm is known. */
const nothingRead = (
  { steady, startUp, dropouts, dropoutCount }: ReturnType<typeof runningPart>,
  meanAmps: number,
  peakToPeakAmps: number,
  rateHz: number,
): Omit<RippleReading, "verdict" | "because"> => ({
  meanAmps,
  peakToPeakAmps,
  humpHz: null,
  humpsPerTurn: null,
  bars: null,
  rpm: null,
  humpAmps: [],
  badHumps: [],
  cannot: [],
  errorAmps: [],
  badBars: null,
  turns: null,
  wanderAmps: null,
  turnAmps: [],
  driftHz: null,
  startUp,
  dropouts,
  dropoutCount,
  chopping: null,
  steadySeconds: [steady.from / rateHz, steady.to / rateHz],
});

/** What makes a recording doubtful whatever its rhythm: a range too fine, or a wrong scale. */
function misreadings(
  amps: Float32Array,
  steady: Stretch,
  { mean, low, high }: ReturnType<typeof rangeOf>,
): RippleReason[] {
  return [
    ...(isClipped(amps, steady, low, high) ? [{ code: "clipped" } as const] : []),
    ...(Math.abs(mean) > mostMeanAmps ? [{ code: "wrong-scale", meanAmps: Math.abs(mean) } as const] : []),
  ];
}

/**
 * Reads the ripples of a permanent-magnet motor's current. With one brush per pole, ripples per turn are the least
 * common multiple of bars and poles (12 bars and 2 poles give 12, 11 give 22). A single bad bar passes every brush, so
 * it shows once per brush and turn; that changes the heights, not the rpm. Ripples per turn and rpm are only reported
 * if bars, rpm or a mark once per turn are known.
 */
export function readRipple(trace: CurrentRecording, options: RippleOptions = {}): RippleReading {
  const { amps, rateHz } = trace;
  const { bars, poles = 2, rpm, onProgress = () => {} } = options;
  onProgress(0);
  const running = runningPart(trace);
  onProgress(0.15);
  const { steady } = running;
  const { mean, low, high } = rangeOf(amps, steady);
  const cannot: RippleReason[] = [];
  const perTurnGiven = bars === undefined ? null : humpsPerTurn(bars, poles);
  const base = {
    ...nothingRead(running, mean, high - low, rateHz),
    humpsPerTurn: perTurnGiven,
    bars: bars ?? null,
    cannot,
  };
  const unclear = (reason: RippleReason, more: Partial<RippleReading> = {}): RippleReading => {
    cannot.push(reason);
    return { ...base, ...more, verdict: "unclear", because: reason };
  };
  if (amps.length < leastSamples)
    return unclear({ code: "too-few-samples", samples: amps.length, needed: leastSamples });
  cannot.push(...misreadings(amps, steady, { mean, low, high }));
  if (rpm !== undefined && perTurnGiven !== null) {
    const expected = (rpm * perTurnGiven) / 60;
    if (rateHz < samplesForRhythm * expected) return unclear(tooSlow(rateHz, expected));
  }
  const turnGiven = perTurnGiven !== null ? { perTurn: perTurnGiven } : rpm !== undefined ? { rpm } : null;
  const { trace: plain, chopping, rivals } = withoutChopping(trace, steady, options.choppingHz, turnGiven);
  onProgress(0.4);
  const band = bandOf(options);
  if (rivals?.every((hz) => hz > band.lowHz && hz < band.highHz))
    return unclear({ code: "two-rhythms", hz: rivals });
  const thin = thinned(plain, steady);
  const whole = { from: 0, to: thin.amps.length };
  const humped = { ...thin, amps: withoutDips(thin.amps, thin.rateHz, whole) };
  const nothing = { code: "no-humps" } as const;
  if (high - low < 1e-9) return unclear(nothing, { chopping });
  const followed = followRipple({ thin, humped, whole, band, perTurn: perTurnGiven, poles });
  onProgress(0.8);
  if (!followed) return unclear(nothing, { chopping });
  const { rhythm, humpHz, phase: rough, points, grid: roughGrid } = followed;
  const known = { chopping, humpHz, driftHz: driftOf(rhythm) };
  if (perTurnGiven !== null) {
    const most = humpHz / band.lowHz;
    const doubt = rhythmDoubt(roughGrid, { perTurn: perTurnGiven, poles, most, chopped: chopping !== null });
    if (doubt) return unclear(doubtful(doubt, (60 * humpHz) / perTurnGiven), { chopping });
  }
  if (rateHz < samplesPerHump * humpHz)
    return unclear(tooSlow(rateHz, humpHz), { ...known, ...speedOf(humpHz, perTurnGiven) });
  const even = (): HumpGrid => humpGrid(humped.amps, rough, points, enoughHumps);
  const turn = turnCount(humpHz, { even, raw: roughGrid }, options, cannot);
  onProgress(0.9);
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
  const judged = judgedRipple(grid, turn, poles, humpHz, cannot);
  onProgress(1);
  return { ...result, ...judged };
}

const tooSlow = (rateHz: number, humpHz: number): RippleReason => ({
  code: "sampled-too-slowly",
  rateHz,
  neededHz: samplesPerHump * humpHz,
});

function doubtful(doubt: RhythmDoubt, rpm: number): RippleReason {
  if (doubt.kind === "no-turns") return { code: "no-turns" };
  if (doubt.kind === "too-tall") return { code: "humps-too-tall" };
  return { code: "one-of-two-speeds", rpm: [rpm, rpm / doubt.times] };
}

const driftOf = ({ hz }: HumpRhythm): [number, number] => [
  hz.reduce((least, value) => Math.min(least, value), Number.POSITIVE_INFINITY),
  hz.reduce((most, value) => Math.max(most, value), 0),
];

const speedOf = (humpHz: number, perTurn: number | null) => ({
  humpsPerTurn: perTurn,
  rpm: perTurn === null ? null : (60 * humpHz) / perTurn,
});
