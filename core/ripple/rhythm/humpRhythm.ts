import { type CurrentRecording, meanOf, medianOf, type Stretch } from "../../signal/currentRecording";
import { type Peak, peaksOf, type Spectrum, spectrumOf } from "../../signal/spectrum";

/** The ripple frequency along the recording, which drifts with the speed. */
export interface HumpRhythm {
  /** Middle sample of each stretch, ascending. */
  readonly centres: Float64Array;
  /** Ripples per second there. */
  readonly hz: Float64Array;
  /** Power of the rhythm over that of its surroundings. */
  readonly standsOut: number;
}

/** Limits of a blower motor's ripple frequency: 8 per turn at 200 rpm, 48 per turn at 6 000. */
export const slowestHumpHz = 25;
export const fastestHumpHz = 5000;

/** Shortest stretch in which the rhythm is searched, in seconds. */
const stretchSeconds = 0.2;
/** Ripples that a stretch should hold. */
const humpsPerStretch = 40;
/** Most stretches. */
const mostStretches = 240;
/** Spectral peaks kept for each stretch. */
const candidatesKept = 6;
/**
 * Exponent of the frequency by which spectral magnitudes are weighted. A variation once per turn may be taller than the
 * ripple, but the ripple has at least eight times its frequency. The ripple's harmonics fall off faster than the weight rises.
 */
const frequencyWeight = 0.7;
/** Change of speed between stretches, as a natural logarithm, that costs as much as a factor e in height. */
const speedStep = 0.02;
/** Ratio of the peaks to the noise below which no ripple is found. */
const noiseFloor = 50;

/** The range of frequencies in which the ripples are searched. */
export interface HumpBand {
  readonly lowHz: number;
  readonly highHz: number;
}

/** Number of peaks tried as orders of the ripple's comb if the ripples per turn are known. */
const combPeaks = 8;
/** Weight of a comb's score, in natural logarithms of height. */
const combWeight = 3;

/**
 * Ripples per second from the comb of lines that bad bars make: a bad bar passes every brush, so everything repeats
 * once per pole, and every line is a multiple of that frequency. A candidate scores by the share of its lines that are
 * present, their share of all power, and the ripple's own line.
 * @param perPole ripples from one pole to the next
 */
function combCandidates(spectrum: Spectrum, band: HumpBand, topHz: number, perPole: number) {
  const { magnitude, binHz } = spectrum;
  const peaks = peaksOf(spectrum, slowestHumpHz / 2, topHz, combPeaks);
  const first = Math.max(2, Math.ceil(slowestHumpHz / 2 / binHz));
  const floor = medianOf(magnitude.subarray(first, Math.max(first + 1, Math.ceil(topHz / binHz)))) ** 2;
  const total = peaks.reduce((sum, peak) => sum + peak.magnitude ** 2, 0);
  const powerAt = (hz: number): number => {
    const bin = Math.round(hz / binHz);
    return Math.max(magnitude[bin - 1] ?? 0, magnitude[bin] ?? 0, magnitude[bin + 1] ?? 0) ** 2;
  };
  const scored = new Map<number, { hz: number; score: number }>();
  for (const { hz } of peaks)
    for (let order = 1; order <= 2 * perPole; order++) {
      const own = (hz * perPole) / order;
      if (own < band.lowHz || own > band.highHz || scored.has(Math.round(own / binHz))) continue;
      const step = own / perPole;
      let sum = 0;
      for (let line = 1; line <= 2 * perPole; line++)
        sum += Math.log1p(powerAt(line * step) / (floor + 1e-300));
      sum += perPole * Math.log1p(powerAt(own) / (floor + 1e-300));
      const held = peaks.reduce(
        (power, peak) =>
          Math.abs(peak.hz / step - Math.round(peak.hz / step)) * step < 1.5 * binHz && peak.hz < 2.1 * own
            ? power + peak.magnitude ** 2
            : power,
        0,
      );
      scored.set(Math.round(own / binHz), {
        hz: own,
        score: (sum / (3 * perPole)) * (held / Math.max(1e-300, total)),
      });
    }
  return [...scored.values()].sort((a, b) => b.score - a.score).slice(0, candidatesKept);
}

/**
 * Follows the strongest rhythm through a recording: the best path through the peaks of short stretches, by height and
 * by steadiness (Viterbi's algorithm).
 * @param perPole ripples from one pole to the next, if known: then a comb of lines is searched
 * @returns null if nothing stands out
 */
export function humpRhythm(
  { amps, rateHz }: CurrentRecording,
  { from, to }: Stretch,
  { lowHz, highHz }: HumpBand,
  perPole: number | null = null,
): HumpRhythm | null {
  const wanted = Math.max(256, stretchSeconds * rateHz, (humpsPerStretch * rateHz) / Math.max(lowHz, 150));
  const count = Math.min(to - from, 2 ** Math.round(Math.log2(wanted)));
  if (count < 32) return null;
  const stretches = Math.max(1, Math.min(mostStretches, Math.ceil((2 * (to - from)) / count) - 1));
  const step = stretches === 1 ? 0 : (to - from - count) / (stretches - 1);
  const top = Math.min(highHz, 0.48 * rateHz);
  const layers: { peaks: Peak[]; weights: number[]; over: number[] }[] = [];
  for (let i = 0; i < stretches; i++) {
    const spectrum = spectrumOf(amps, rateHz, { from: Math.round(from + i * step), count });
    if (perPole !== null) {
      const found = combCandidates(
        spectrum,
        { lowHz, highHz: top },
        Math.min(0.48 * rateHz, fastestHumpHz),
        perPole,
      );
      layers.push({
        peaks: found.map(({ hz, score }) => ({ hz, bin: 0, magnitude: score })),
        over: found.map(() => noiseFloor),
        weights: found.map(({ score }) => combWeight * score),
      });
      continue;
    }
    const peaks = peaksOf(spectrum, lowHz, top, candidatesKept, (m, hz) => m * hz ** frequencyWeight);
    const over = peaks.map((peak) => overSurroundings(spectrum.magnitude, peak.bin));
    layers.push({
      peaks,
      over,
      weights: peaks.map(({ magnitude, hz }) => Math.log(magnitude * hz ** frequencyWeight + 1e-300)),
    });
  }
  const path = bestPath(layers);
  if (!path) return null;
  const standsOut = meanOf(path.map((at, i) => layers[i]?.over[at] ?? 0));
  if (standsOut < noiseFloor) return null;
  return {
    centres: Float64Array.from({ length: stretches }, (_, i) => from + i * step + count / 2),
    hz: Float64Array.from(path, (at, i) => layers[i]?.peaks[at]?.hz ?? 0),
    standsOut,
  };
}

function bestPath(layers: readonly { peaks: Peak[]; weights: number[] }[]): number[] | null {
  let scores = [...(layers[0]?.weights ?? [])];
  if (layers.some(({ peaks }) => peaks.length === 0)) return null;
  const back: number[][] = [];
  for (let layer = 1; layer < layers.length; layer++) {
    const [before, own] = [layers[layer - 1], layers[layer]] as [(typeof layers)[0], (typeof layers)[0]];
    const from: number[] = [];
    const previous = scores;
    scores = own.peaks.map(({ hz }, at) => {
      let best = -1;
      let bestScore = Number.NEGATIVE_INFINITY;
      before.peaks.forEach((peak, i) => {
        const score = (previous[i] as number) - Math.abs(Math.log(hz / peak.hz)) / speedStep;
        if (score > bestScore) [best, bestScore] = [i, score];
      });
      from[at] = best;
      return bestScore + (own.weights[at] as number);
    });
    back.push(from);
  }
  let at = scores.indexOf(Math.max(...scores));
  const path = [at];
  for (const from of [...back].reverse()) {
    at = from[at] as number;
    path.unshift(at);
  }
  return path;
}

/**
 * Power of a peak over the median power around it, without its own lobe, so that a comb of other lines counts little.
 */
function overSurroundings(magnitude: Float64Array, bin: number): number {
  const around: number[] = [];
  const last = Math.min(magnitude.length, bin * 1.6);
  for (let at = Math.max(2, Math.floor(bin / 1.6)); at < last; at++)
    if (Math.abs(at - bin) > 4) around.push(magnitude[at] as number);
  return (magnitude[bin] as number) ** 2 / Math.max(1e-30, medianOf(around) ** 2);
}
