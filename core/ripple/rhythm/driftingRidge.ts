import { peaksOf, spectrumOf } from "../../signal/spectrum";
import { fastestHumpHz, slowestHumpHz } from "./humpRhythm";

/** Length of a part, in seconds: short enough for a drifting rhythm to be one line in it. */
const ridgeSeconds = 0.15;
/** Height of a rhythm, as a share of the part's tallest line, from which it counts. */
const leastShare = 0.12;
/** Most spectral peaks examined in a part. */
const mostPeaks = 24;
/** Largest relative change of a ridge's frequency from one part to the next. */
const ridgeStep = 0.006;
/** Smallest share of parts in which a ridge must be found. */
const ridgeMet = 0.8;

/** A drifting rhythm: its mean frequency, how far it moved, and the bin width of the parts it was found in. */
export interface Ridge {
  readonly hz: number;
  readonly driftHz: number;
  readonly binHz: number;
}

/** Rhythms that are tall in nearly every short part, each close to its place in the part before. */
export function ridgesOf(amps: Float32Array, rateHz: number, from: number, count: number): Ridge[] {
  const length = Math.min(count, 2 ** Math.floor(Math.log2(Math.max(256, ridgeSeconds * rateHz))));
  const parts = Math.max(1, Math.floor((2 * count) / length) - 1);
  const tracks: { hz: number; low: number; high: number; sum: number; met: number }[] = [];
  for (let part = 0; part < parts; part++) {
    const own = spectrumOf(amps, rateHz, { from: from + (part * length) / 2, count: length });
    const peaks = peaksOf(own, slowestHumpHz, Math.min(fastestHumpHz, rateHz / 2), mostPeaks);
    const tall = peaks.filter(({ magnitude }) => magnitude > leastShare * (peaks[0]?.magnitude ?? 0));
    if (part === 0) tracks.push(...tall.map(({ hz }) => ({ hz, low: hz, high: hz, sum: hz, met: 1 })));
    else
      for (const track of tracks) {
        const next = tall.reduce<number | null>(
          (best, { hz }) =>
            Math.abs(hz / track.hz - 1) < ridgeStep &&
            (best === null || Math.abs(hz - track.hz) < Math.abs(best - track.hz))
              ? hz
              : best,
          null,
        );
        if (next === null) continue;
        track.hz = next;
        track.low = Math.min(track.low, next);
        track.high = Math.max(track.high, next);
        track.sum += next;
        track.met += 1;
      }
  }
  return tracks
    .filter(({ met }) => met > ridgeMet * parts)
    .map(({ sum, met, low, high }) => ({ hz: sum / met, driftHz: high - low, binHz: rateHz / length }));
}
