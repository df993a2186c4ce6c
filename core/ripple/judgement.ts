import { medianOf } from "../signal/currentRecording";
import type { HumpGrid } from "./rhythm/humpGrid";
import type { RippleReading } from "./rippleReading";
import type { RippleReason } from "./rippleReason";
import { type FoldedTurn, foldedTurn, humpShape, singleHeights } from "./turn/foldedTurn";
import type { TurnCount } from "./turn/turnCount";

const leastTurns = 3;
/** Share of the usual height below which a ripple is bad, and below which it is missing. */
export const badShare = 0.6;
const missingShare = 0.25;
/** A ripple is bad only if it lies at least this many standard errors below the limit. */
const sureErrors = 2.5;
/** If noise hides the differences of sound ripples, only a ripple this many standard errors below is bad. */
const sureInNoise = 10;
/** Heights whose error exceeds this share of the usual height cannot be judged. */
const surestShare = 0.12;

/** The judgement of the ripples' heights. */
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
 * Judges the ripples turn by turn if a period is known, otherwise one by one.
 * @param cannot receives what cannot be determined, with the reason
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

/** Runs of neighbouring ripples around the turn: after a bad bar the current needs one or two ripples to recover. */
const runsOf = (ripple: readonly number[], perTurn: number): number =>
  ripple.length === perTurn
    ? perTurn
    : ripple.filter((hump) => !ripple.includes((hump + perTurn - 1) % perTurn)).length;

/**
 * The usual height: the median; if half the ripples or more are bad, the median of the good ones; if nearly all are,
 * the tallest.
 */
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

/** Ripple by ripple if the turn is unknown; then only a quiet recording can be judged. */
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
