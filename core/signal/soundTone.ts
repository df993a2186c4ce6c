import { meanOf, medianOf } from "./currentRecording";
import { type Peak, peaksOf, type Spectrum, spectrumOf } from "./spectrum";

/** A sound recording of a running blower, and its speed if known. */
export interface SoundRecording {
  readonly samples: Float32Array;
  readonly rateHz: number;
  readonly rpm: number | null;
}

/** A tone that stands out in a recording. */
export interface SoundTone {
  readonly hz: number;
  /** Decibels above its surroundings. */
  readonly over: number;
}

const windowSamples = 8192;
const mostWindows = 200;
const lowestHz = 18;
const mostTones = 14;
const standsOutDecibels = 9;
/** Width of the surroundings, as a factor of the frequency. */
const around = 1.25;

/** Mean power spectrum of a recording from many short windows that half overlap (P. D. Welch 1967). */
export function meanSpectrum(samples: Float32Array, rateHz: number): Spectrum {
  const count = Math.min(windowSamples, samples.length);
  const windows = Math.max(1, Math.min(mostWindows, Math.floor((2 * samples.length) / count) - 1));
  const step = windows === 1 ? 0 : (samples.length - count) / (windows - 1);
  let power: Float64Array | null = null;
  let binHz = rateHz / count;
  for (let i = 0; i < windows; i++) {
    const { magnitude, binHz: own } = spectrumOf(samples, rateHz, { from: Math.round(i * step), count });
    binHz = own;
    power ??= new Float64Array(magnitude.length);
    for (let bin = 0; bin < magnitude.length; bin++)
      power[bin] = (power[bin] as number) + (magnitude[bin] as number) ** 2 / windows;
  }
  return { magnitude: (power ?? new Float64Array(0)).map(Math.sqrt), binHz };
}

/** Tones that stand out in a spectrum, those furthest above their surroundings first. */
export function tonesOf(spectrum: Spectrum): SoundTone[] {
  const { magnitude, binHz } = spectrum;
  const over = (bin: number): number => {
    const reach = Math.max(6, bin * (around - 1));
    const beside: number[] = [];
    for (
      let at = Math.max(2, Math.floor(bin - reach));
      at <= Math.min(magnitude.length - 1, bin + reach);
      at++
    )
      if (Math.abs(at - bin) > 3) beside.push(magnitude[at] as number);
    return 20 * Math.log10((magnitude[bin] as number) / Math.max(1e-300, medianOf(beside)));
  };
  const peaks: Peak[] = peaksOf(
    spectrum,
    lowestHz,
    0.45 * magnitude.length * 2 * binHz,
    4 * mostTones,
    (own, hz) => own * Math.sqrt(hz),
  );
  return peaks
    .map(({ hz, bin }) => ({ hz, over: over(bin) }))
    .filter((tone) => tone.over > standsOutDecibels)
    .sort((a, b) => b.over - a.over)
    .slice(0, mostTones);
}

/** Share of a spectrum's power between two frequencies. */
export function powerShare({ magnitude, binHz }: Spectrum, lowHz: number, highHz: number): number {
  let [within, all] = [0, 0];
  for (let bin = Math.max(1, Math.ceil(lowestHz / binHz)); bin < magnitude.length; bin++) {
    const power = (magnitude[bin] as number) ** 2;
    all += power;
    if (bin * binHz >= lowHz && bin * binHz < highHz) within += power;
  }
  return all === 0 ? 0 : within / all;
}

/** Knocks in a sound: how far the loudest moments exceed the middle one, and how often they repeat. */
export interface Blows {
  /** Mean of the loudest hundredth of the moments divided by the median. */
  readonly crest: number;
  /** How often they repeat; null if they are irregular. */
  readonly hz: number | null;
}

const momentSeconds = 0.002;
const highPassSamples = 24;
const repeatsOver = 12;

/** Finds clicks and ticks from the loudness of the upper frequencies over time, and their rhythm. */
export function blowsOf(samples: Float32Array, rateHz: number): Blows {
  const block = Math.max(4, Math.round(momentSeconds * rateHz));
  const reach = Math.max(2, Math.min(highPassSamples, Math.round(rateHz / 2000)));
  const loud: number[] = [];
  let sum = 0;
  for (let i = 0; i < reach; i++) sum += samples[i] ?? 0;
  let own = 0;
  for (let i = reach; i < samples.length; i++) {
    const high = (samples[i] as number) - sum / reach;
    sum += (samples[i] as number) - (samples[i - reach] as number);
    own += high * high;
    if ((i - reach) % block === block - 1) {
      loud.push(Math.sqrt(own / block));
      own = 0;
    }
  }
  const sorted = Float64Array.from(loud).sort();
  const middle = sorted[sorted.length >> 1] ?? 0;
  const top = meanOf(sorted.subarray(Math.floor(0.99 * sorted.length)));
  const spectrum = spectrumOf(loud, rateHz / block);
  const [peak] = peaksOf(spectrum, 3, 120, 1);
  const floor = medianOf(spectrum.magnitude);
  const repeats = peak && peak.magnitude > repeatsOver * floor;
  return { crest: middle === 0 ? 0 : top / middle, hz: repeats ? peak.hz : null };
}

/** Loudness by time and frequency for a picture, in decibels below the loudest. */
export interface Spectrogram {
  readonly columns: number;
  readonly rows: number;
  readonly topHz: number;
  readonly seconds: number;
  /** Indexed by column × rows + row, the lowest frequency first; 0 at the loudest, `floor` at the quietest shown. */
  readonly decibels: Float32Array;
  readonly floor: number;
}

const spectrogramFloor = -70;

/** Cuts a sound into short windows. Each column holds the loudest of its windows, so that a tick is not lost. */
export function spectrogramOf(
  samples: Float32Array,
  rateHz: number,
  columns: number,
  rows: number,
  topHz: number,
): Spectrogram {
  const count = 2 ** Math.round(Math.log2(Math.max(256, Math.min(4096, rateHz / 25))));
  const perColumn = Math.max(1, Math.min(4, Math.ceil(samples.length / columns / count)));
  const decibels = new Float32Array(columns * rows).fill(Number.NEGATIVE_INFINITY);
  let loudest = 1e-12;
  for (let column = 0; column < columns; column++) {
    for (let i = 0; i < perColumn; i++) {
      const from = Math.round(((column + i / perColumn) / columns) * Math.max(0, samples.length - count));
      const { magnitude, binHz } = spectrumOf(samples, rateHz, {
        from,
        count: Math.min(count, samples.length),
        size: count,
      });
      for (let row = 0; row < rows; row++) {
        const first = Math.floor(((row / rows) * topHz) / binHz);
        const last = Math.max(first, Math.floor((((row + 1) / rows) * topHz) / binHz) - 1);
        let own = 0;
        for (let bin = first; bin <= last; bin++) own = Math.max(own, magnitude[bin] ?? 0);
        const at = column * rows + row;
        if (own > (decibels[at] as number)) decibels[at] = own;
        if (own > loudest) loudest = own;
      }
    }
  }
  return {
    columns,
    rows,
    topHz,
    seconds: samples.length / rateHz,
    decibels: decibels.map((own) =>
      Math.max(spectrogramFloor, 20 * Math.log10(Math.max(1e-12, own) / loudest)),
    ),
    floor: spectrogramFloor,
  };
}
