import { barsFor, humpsPerTurn, possibleHumps } from "../../motor/commutator";
import { medianOf } from "../../signal/currentRecording";
import type { HumpGrid } from "../rhythm/humpGrid";
import type { RippleOptions } from "../rippleOptions";
import type { RippleReason } from "../rippleReason";
import { humpShape } from "./foldedTurn";
import { humpLevels, turnMark } from "./turnMark";

/** Smallest mark once per turn, as a share of a ripple's swing. */
const leastMark = 0.006;
/** Largest relative difference between an entered rpm and the ripple. */
export const rpmWithin = 0.04;

/** Usual swing of a ripple, by the median. */
function usualSwing({ values, points }: HumpGrid): number {
  const { top, valley } = humpShape(values, points);
  return Math.max(0, medianOf(columnOf(values, points, top)) - medianOf(columnOf(values, points, valley)));
}

const columnOf = (values: Float32Array, points: number, at: number): Float32Array =>
  Float32Array.from(
    { length: Math.min(2000, Math.floor(values.length / points)) },
    (_, hump) => values[hump * points + at] as number,
  );

/** Ripples per turn, as far as they can be known. */
export interface TurnCount {
  readonly perTurn: number | null;
  readonly bars: number | null;
  /** A period with which the ripples repeat, whatever part of a turn it is. */
  readonly period: number | null;
}

/**
 * Ripples per turn and bars: as given, from the given speed, or from a mark once per turn.
 * @param even the ripples with the dips of bad bars removed, `raw` unchanged
 * @param cannot receives what cannot be determined, with the reason
 */
export function turnCount(
  humpHz: number,
  { even, raw }: { readonly even: () => HumpGrid; readonly raw: HumpGrid },
  options: Pick<RippleOptions, "bars" | "poles" | "rpm">,
  cannot: RippleReason[],
): TurnCount {
  const { bars, poles = 2, rpm } = options;
  if (bars !== undefined) {
    const perTurn = humpsPerTurn(bars, poles);
    const own = (60 * humpHz) / perTurn;
    if (rpm !== undefined && Math.abs(own / rpm - 1) > rpmWithin)
      cannot.push({ code: "bars-contradict-rpm", bars, rpm: own, givenRpm: rpm });
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
    cannot.push({ code: "no-such-commutator", humpsPerTurn: exact, poles });
    return { perTurn: null, bars: null, period: null };
  }
  const leastAmps = leastMark * usualSwing(raw);
  const mark = turnMark(humpLevels(even()), humpLevels(raw), possible, poles, leastAmps);
  if (mark.kind === "once-a-turn")
    return { perTurn: mark.humps, bars: oneOf(mark.humps, poles, cannot), period: null };
  cannot.push(mark.kind === "pattern" ? { code: mark.repeats, humps: mark.humps } : { code: "no-mark" });
  return { perTurn: null, bars: null, period: mark.kind === "pattern" ? mark.humps : null };
}

function oneOf(perTurn: number, poles: number, cannot: RippleReason[]): number | null {
  const fitting = barsFor(perTurn, poles);
  if (fitting.length === 1) return fitting[0] ?? null;
  cannot.push({ code: "bars-alike", humpsPerTurn: perTurn, bars: fitting });
  return null;
}
