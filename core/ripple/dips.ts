import type { Stretch } from "../signal/currentRecording";

const blockSeconds = 0.1;
const leastBlock = 256;
/** Number of samples a level is estimated from. */
const sampled = 512;
/** Ripple tops lie this far above the median; the valleys of healthy ripples lie within this multiple below it. */
const reach = 3;
/** A dip ends when the current is back within this multiple. */
const back = 1;

/**
 * The recording with deep dips below its ripples removed. A bad bar can cause a dip ten times a ripple's height, and
 * its own rhythm would mask that of the ripples. Only used to find the rhythm; heights are read from the recording
 * itself.
 */
export function withoutDips(amps: Float32Array, rateHz: number, { from, to }: Stretch): Float32Array {
  const out = amps.slice();
  const block = Math.max(leastBlock, Math.round(blockSeconds * rateHz));
  for (let start = from; start < to; start += block) {
    const end = Math.min(to, start + block);
    const step = Math.max(1, Math.floor((end - start) / sampled));
    const some: number[] = [];
    for (let i = start; i < end; i += step) some.push(amps[i] as number);
    const sorted = Float64Array.from(some).sort();
    const middle = sorted[Math.floor(0.5 * sorted.length)] ?? 0;
    const top = sorted[Math.floor(0.9 * sorted.length)] ?? 0;
    const below = sorted[Math.floor(0.35 * sorted.length)] ?? 0;
    const swing = Math.max(top - middle, middle - below);
    const [deep, near] = [middle - reach * swing, middle - back * swing];
    for (let i = start; i < end; i++) {
      if ((amps[i] as number) >= deep) continue;
      let [first, last] = [i, i];
      while (first > start && (amps[first - 1] as number) < near) first -= 1;
      while (last + 1 < end && (amps[last + 1] as number) < near) last += 1;
      out.fill(middle, first, last + 1);
      i = last;
    }
  }
  return out;
}
