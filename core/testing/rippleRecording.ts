import { randomSource } from "../chance/randomSource";
import { humpsPerTurn } from "../motor/commutator";
import type { CurrentRecording } from "../signal/currentRecording";

/** A recording generated from the definition: half-sine ripples with known bars, poles, speed and heights. */
export interface DrawnRecording {
  readonly bars: number;
  readonly poles?: number;
  readonly rpm: number;
  readonly seconds: number;
  readonly rateHz: number;
  /** Height of each ripple of a turn, relative to the usual one. */
  readonly heights?: (hump: number) => number;
  /** Root mean square of the added noise in amps; ripples are 1 A high and 0.31 A root mean square about their mean. */
  readonly noise?: number;
  /** Amplitude of a variation once per turn. */
  readonly mark?: number;
  /** Share by which the speed changes over the recording. */
  readonly drift?: number;
  /** Random variation of each ripple's length, as a share of it. */
  readonly jitter?: number;
  readonly chopping?: { readonly hz: number; readonly amps: number };
  readonly seed?: number;
}

/** Root mean square of a half-sine about its mean: sqrt(1/2 − 4/π²). */
export const halfSineRms = Math.sqrt(0.5 - 4 / Math.PI ** 2);

/** Generates a recording, with its true mean speed. */
export function drawnRecording(made: DrawnRecording): CurrentRecording & { readonly rpm: number } {
  const { bars, poles = 2, rpm, seconds, rateHz, heights = () => 1, noise = 0, mark = 0, drift = 0 } = made;
  const perTurn = humpsPerTurn(bars, poles);
  const { uniform, normal } = randomSource(made.seed ?? 1);
  const count = Math.round(seconds * rateHz);
  const start = uniform();
  let turn = start;
  let slip = 0;
  let last = -1;
  const amps = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    const now = rpm * (1 + drift * (i / count - 0.5));
    turn += now / 60 / rateHz;
    const place = turn * perTurn + slip;
    const hump = Math.floor(place);
    if (hump !== last) {
      last = hump;
      slip = (made.jitter ?? 0) * normal();
    }
    const within = Math.max(0, Math.min(1, place - hump));
    const chop = made.chopping
      ? made.chopping.amps * (Math.abs((((i / rateHz) * made.chopping.hz) % 1) - 0.5) * 4 - 1)
      : 0;
    amps[i] =
      15 +
      heights(((hump % perTurn) + perTurn) % perTurn) * Math.sin(Math.PI * within) +
      mark * Math.cos(2 * Math.PI * turn) +
      chop +
      noise * normal();
  }
  return { amps, rateHz, rpm: ((turn - start) * 60) / seconds };
}
