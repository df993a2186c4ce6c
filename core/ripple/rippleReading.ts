import type { Chopping } from "./chopping/chopping";
import type { RippleReason } from "./rippleReason";
import type { Dropout, StartUp } from "./startUp";

/** What the ripples on a motor's current tell; null where it cannot be known, with the reason in `cannot`. */
export interface RippleReading {
  readonly meanAmps: number;
  readonly peakToPeakAmps: number;
  readonly humpHz: number | null;
  readonly humpsPerTurn: number | null;
  readonly bars: number | null;
  readonly rpm: number | null;
  /** Height of each ripple of one turn over the line through the valleys, mean over the turns. */
  readonly humpAmps: readonly number[];
  /** Ripples, from 0, well below the others. */
  readonly badHumps: readonly number[];
  readonly verdict: "even" | "uneven" | "missing" | "unclear";
  /** What cannot be told. */
  readonly cannot: readonly RippleReason[];
  /** Why the verdict is so. */
  readonly because: RippleReason;
  /** Standard error of each ripple's height, from its scatter over the turns. */
  readonly errorAmps: readonly number[];
  /** Bars that explain the bad ripples, at least: each passes every brush. Null where ripples per turn are not known. */
  readonly badBars: number | null;
  readonly turns: number | null;
  /** Swing of the valleys over a turn, peak to peak. */
  readonly wanderAmps: number | null;
  /** One turn, the mean of all: amps by point. */
  readonly turnAmps: readonly number[];
  /** Slowest and fastest rhythm along the recording, ripples per second. */
  readonly driftHz: readonly [number, number] | null;
  readonly startUp: StartUp | null;
  readonly dropouts: readonly Dropout[];
  readonly dropoutCount: number;
  readonly chopping: Chopping | null;
  /** The steady part the ripples were read from, in seconds from the recording's beginning. */
  readonly steadySeconds: readonly [number, number];
}
