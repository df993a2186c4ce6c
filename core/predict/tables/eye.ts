import { roughNormalCdf } from "./normal";

/** Width of the eye's thresholds in lamp volts (judgement, no source). */
const eyeVolts = 0.6;
/** Probability that a lamp on a chattering relay is seen to flicker, and that a steady one is called flickering. */
const flickerSeen = 0.85;
const flickerFalse = 0.01;

/** Volts from a threshold beyond which nobody errs: four standard deviations. */
const sure = 4 * eyeVolts;

/** How one person judges a lamp: the volts above which it is bright, and dim. */
export interface Eyes {
  readonly brightVolts: number;
  readonly dimVolts: number;
}

/**
 * Odds that a lamp at some volts is called bright, dim, dark or flickering, in this order.
 * @param out receives four odds that sum to 1
 * @param at index in `out` of the first
 */
export function lampOdds(volts: number, eyes: Eyes, buzzing: boolean, out: Float64Array, at: number): void {
  if (!buzzing && (volts > eyes.brightVolts + sure || volts < eyes.dimVolts - sure)) {
    const lit = volts > eyes.dimVolts;
    out[at] = lit ? 1 - flickerFalse : 0;
    out[at + 1] = 0;
    out[at + 2] = lit ? 0 : 1 - flickerFalse;
    out[at + 3] = flickerFalse;
    return;
  }
  const bright = roughNormalCdf((volts - eyes.brightVolts) / eyeVolts);
  const dark = roughNormalCdf((eyes.dimVolts - volts) / eyeVolts);
  const flicker = buzzing ? flickerSeen : flickerFalse;
  out[at] = bright * (1 - flicker);
  out[at + 1] = Math.max(0, 1 - bright - dark) * (1 - flicker);
  out[at + 2] = dark * (1 - flicker);
  out[at + 3] = flicker;
}
