import type { Chopping } from "./chopping/chopping";
import type { RippleReason } from "./rippleReason";
import type { Dropout, StartUp } from "./startUp";

/** What the ripples of a motor's current show; null if something cannot be known, with the reason in `cannot`. */
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
  /** What cannot be determined. */
  readonly cannot: readonly RippleReason[];
  /** Reasons for the verdict. */
  readonly because: RippleReason;
  /** Standard error of each ripple's height, from its scatter over the turns. */
  readonly errorAmps: readonly number[];
  /**
   * Smallest number of bars that explain the bad ripples, since each bar passes every brush. Null if ripples per turn
   * are unknown.
   */
  readonly badBars: number | null;
  readonly turns: number | null;
  /** Variation of the valleys over a turn, peak to peak. */
  readonly wanderAmps: number | null;
  /** One turn, the mean of all: amps by point. */
  readonly turnAmps: readonly number[];
  /** Lowest and highest ripple frequency along the recording, in hertz. */
  readonly driftHz: readonly [number, number] | null;
  readonly startUp: StartUp | null;
  readonly dropouts: readonly Dropout[];
  readonly dropoutCount: number;
  readonly chopping: Chopping | null;
  /** The steady part the ripples were read from, in seconds from the start of the recording. */
  readonly steadySeconds: readonly [number, number];
}
