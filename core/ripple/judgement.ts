import { medianOf } from "../signal/currentRecording";
import type { HumpGrid } from "./rhythm/humpGrid";
import type { RippleReading } from "./rippleReading";
import type { RippleReason } from "./rippleReason";
import { type FoldedTurn, foldedTurn, humpShape, singleHeights } from "./turn/foldedTurn";
import type { TurnCount } from "./turn/turnCount";

const leastTurns = 3;
/** Below this share of the usual height a ripple is bad; below the other it is missing. */
export const badShare = 0.6;
const missingShare = 0.25;
/** A ripple is bad when it lies this many standard errors under the limit, at least. */
const sureErrors = 2.5;
/** In noise that hides what sound ripples differ by, only one that lies so far under it is. */
const sureInNoise = 10;
/** Heights less certain than this share of the usual height cannot be judged. */
const surestShare = 0.12;

/** What the heights of the ripples come to. */
export type Judged = Pick<
  RippleReading,
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

/**
 * Judges the ripples: turn by turn where a period is known, else one by one.
 * @param cannot takes what cannot be told, with its reason
 */
export function judgedRipple(
  grid: HumpGrid,
  turn: TurnCount,
  poles: number,
  humpHz: number,
  cannot: RippleReason[],
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
    cannot.push({
      code: "too-few-turns",
      turns: grid.humps / turn.perTurn,
      neededSeconds: ((leastTurns + 1) * turn.perTurn) / humpHz,
    });
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

/** Runs of neighbouring ripples round the turn: the current takes a ripple or two to come back from a bad bar. */
const runsOf = (ripple: readonly number[], perTurn: number): number =>
  ripple.length === perTurn
    ? perTurn
    : ripple.filter((hump) => !ripple.includes((hump + perTurn - 1) % perTurn)).length;

/** The usual height: the middle one; where half the ripples or more are bad, that of the good ones; where nearly all are, the tallest. */
export function usualHeight(heights: readonly number[]): number {
  const sorted = Float64Array.from(heights).sort();
  const middle = sorted[Math.floor(0.5 * sorted.length)] ?? 0;
  const upper = sorted[Math.floor(0.75 * sorted.length)] ?? 0;
  const usual = middle < badShare * upper ? upper : middle;
  return usual > 0 ? usual : (sorted.at(-1) ?? 0);
}

function judgedFold(
  { humpAmps, errorAmps, turns }: FoldedTurn,
  cannot: RippleReason[],
): Pick<RippleReading, "verdict" | "because" | "badHumps"> {
  const usual = usualHeight(humpAmps);
  const isNoisy = !(usual > 0) || medianOf(errorAmps) > surestShare * usual;
  const errors = isNoisy ? sureInNoise : sureErrors;
  const badHumps = humpAmps.flatMap((height, hump) =>
    badShare * usual - height > errors * (errorAmps[hump] ?? 0) ? [hump] : [],
  );
  if (isNoisy && (usual <= 0 || badHumps.length === 0)) {
    const reason = { code: "noisy-over-turns" } as const;
    cannot.push(reason);
    return { verdict: "unclear", because: reason, badHumps: [] };
  }
  const least = Math.min(...humpAmps);
  const leastShare = Math.max(0, least) / usual;
  if (badHumps.length === 0)
    return { verdict: "even", because: { code: "all-even", leastShare, turns }, badHumps };
  return {
    verdict: least < missingShare * usual ? "missing" : "uneven",
    because: { code: "bad-humps", humps: badHumps, leastShare, turns },
    badHumps,
  };
}

/** Ripple after ripple where the turn is not known: each by itself, so only a quiet recording can be judged. */
function judgedSingly(grid: HumpGrid, cannot: RippleReason[]): Pick<RippleReading, "verdict" | "because"> {
  const heights = singleHeights(grid, humpShape(grid.values, grid.points));
  const usual = medianOf(heights);
  const scatter = 1.48 * medianOf(heights.map((height) => Math.abs(height - usual)));
  if (heights.length < 12 || !(usual > 0) || scatter > surestShare * usual) {
    const reason = { code: "noisy-one-by-one" } as const;
    cannot.push(reason);
    return { verdict: "unclear", because: reason };
  }
  const sorted = Float64Array.from(heights).sort();
  const weak = sorted[Math.floor(sorted.length / 60)] ?? 0;
  const verdict = weak < missingShare * usual ? "missing" : weak < badShare * usual ? "uneven" : "even";
  return {
    verdict,
    because: { code: "one-by-one", weakShare: Math.max(0, weak) / usual, humps: heights.length },
  };
}
