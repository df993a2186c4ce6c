import { humpsPerTurn } from "../motor/commutator";

import {
  type Blows,
  blowsOf,
  meanSpectrum,
  powerShare,
  type SoundRecording,
  type SoundTone,
  tonesOf,
} from "../signal/soundTone";
import { type SoundNoise, soundNoises } from "./soundNoise";

/** The source of a tone, as far as its order of the shaft's speed tells. */
export type ToneSource = "balance" | "low-order" | "bearing" | "blades" | "commutation" | "fixed" | "unknown";

/** A tone found in the recordings. */
export interface HeardTone {
  /** Frequency by recording; null where it was not found. */
  readonly hz: readonly (number | null)[];
  /** Decibels above its surroundings where it is strongest. */
  readonly over: number;
  /** Its order, in cycles per turn, if the speed is known. */
  readonly order: number | null;
  /** True if it moves with the speed, false if it stays; null if one recording cannot tell. */
  readonly follows: boolean | null;
  readonly source: ToneSource;
}

/** What the recordings show. */
export interface MotorSound {
  readonly tones: readonly HeardTone[];
  readonly odds: Readonly<Record<SoundNoise, number>>;
  readonly likeliest: SoundNoise;
  /** Whether the likeliest noise follows the speed; null if the recordings cannot tell. */
  readonly followsSpeed: boolean | null;
  /** Speed of each recording relative to the first, found from the sound if it was not given. */
  readonly speedRatios: readonly number[];
  readonly cannot: readonly SoundDoubt[];
}

export interface SoundOptions {
  readonly bars?: number | undefined;
  readonly poles?: number | undefined;
  /** Number of blades of the wheel, if counted. */
  readonly blades?: number | undefined;
}

const leastSeconds = 0.5;
const leastRateHz = 4000;
const followsWithin = 0.02;
const staysWithin = 0.008;
const onOrder = 0.04;
const lowOrders = 3.3;
const bearingOrders = 12;
/** Speeds closer than this cannot separate tones that follow from tones that stay. */
const leastRatio = 1.06;
const widestRatio = 6;
/** Hertz above which a tone sounds like a squeal or a whistle. */
const highToneHz = 700;

/** What some recordings cannot show; recordings are counted from 0. */
export type SoundDoubt =
  | {
      readonly code: "sampled-too-slowly";
      readonly recording: number;
      readonly rateHz: number;
      readonly neededHz: number;
    }
  | { readonly code: "too-short"; readonly recording: number; readonly neededSeconds: number }
  | { readonly code: "silent"; readonly recording: number }
  | { readonly code: "one-speed" }
  /** Speeds relative to the first recording's: as given, and from the tones. */
  | {
      readonly code: "speeds-contradict-tones";
      readonly recording: number;
      readonly given: number;
      readonly heard: number;
    }
  | { readonly code: "speed-not-known"; readonly recording: number };

/** Why a recording cannot be used; null if it can. */
function unfit({ samples, rateHz }: SoundRecording, recording: number): SoundDoubt | null {
  if (rateHz < leastRateHz) return { code: "sampled-too-slowly", recording, rateHz, neededHz: leastRateHz };
  if (samples.length < leastSeconds * rateHz)
    return { code: "too-short", recording, neededSeconds: leastSeconds };
  return samples.every((value) => value === samples[0]) ? { code: "silent", recording } : null;
}

interface Read {
  readonly tones: readonly SoundTone[];
  readonly blows: Blows;
  readonly lowShare: number;
  readonly rpm: number | null;
}

/**
 * Finds which tones follow the speed and at what order, which do not, and what an ear would call the noise. Two or
 * three recordings at different speeds are needed to tell what follows; one still gives orders if its rpm is known.
 * The odds are judgements over measured features (common practice, no source).
 */
export function motorSound(recordings: readonly SoundRecording[], options: SoundOptions = {}): MotorSound {
  const cannot: SoundDoubt[] = [];
  const fit = recordings.filter((recording, index) => {
    const doubt = unfit(recording, index);
    if (doubt) cannot.push(doubt);
    return doubt === null;
  });
  const read = fit.map(({ samples, rateHz, rpm }): Read => {
    const spectrum = meanSpectrum(samples, rateHz);
    return {
      tones: tonesOf(spectrum),
      blows: blowsOf(samples, rateHz),
      lowShare: powerShare(spectrum, 0, 250),
      rpm,
    };
  });
  const speedRatios = ratiosOf(read, cannot);
  const tones = matched(read, speedRatios, options);
  if (read.length < 2) cannot.push({ code: "one-speed" });
  const odds = oddsOf(read, tones);
  const likeliest = soundNoises.reduce<SoundNoise>(
    (best, noise) => (odds[noise] > odds[best] ? noise : best),
    "quiet",
  );
  return {
    tones,
    odds,
    likeliest,
    followsSpeed: followsOf(likeliest, tones, read, speedRatios),
    speedRatios,
    cannot,
  };
}

/** Tones of one recording that another has at a given multiple of their frequency, by how far they stand out. */
function laidOver(first: Read, own: Read, ratio: number): number {
  return first.tones.reduce(
    (sum, { hz, over }) =>
      near(own.tones, hz * ratio, followsWithin) ? sum + Math.min(mostOver, over) : sum,
    0,
  );
}

/** Largest number of decibels a tone counts for when recordings are compared. */
const mostOver = 20;
const enoughOver = 25;

/** Speeds relative to the first recording's: by rpm, otherwise by the frequency ratio that matches most tones. */
function ratiosOf(read: readonly Read[], cannot: SoundDoubt[]): number[] {
  const [first] = read;
  return read.map((own, i) => {
    if (i === 0 || !first) return 1;
    let [best, bestScore] = [1, 0];
    for (const a of first.tones)
      for (const b of own.tones) {
        const ratio = b.hz / a.hz;
        const away = Math.abs(Math.log(ratio));
        if (away > Math.log(widestRatio) || away < Math.log(leastRatio)) continue;
        const score = laidOver(first, own, ratio);
        if (score > bestScore * 1.0001) [best, bestScore] = [ratio, score];
      }
    if (own.rpm !== null && first.rpm !== null) {
      const given = own.rpm / first.rpm;
      const blows = own.blows.hz !== null && first.blows.hz !== null ? own.blows.hz / first.blows.hz : null;
      const borneOut = blows !== null && Math.abs(blows / given - 1) < 2 * followsWithin;
      if (borneOut || bestScore < 2 * enoughOver || laidOver(first, own, given) >= enoughOver) return given;
      cannot.push({ code: "speeds-contradict-tones", recording: i, given, heard: best });
      return best;
    }
    if (bestScore < enoughOver) {
      cannot.push({ code: "speed-not-known", recording: i });
      return 1;
    }
    return best;
  });
}

const near = (tones: readonly SoundTone[], hz: number, within: number): SoundTone | null =>
  tones.reduce<SoundTone | null>(
    (best, tone) =>
      Math.abs(tone.hz / hz - 1) < within &&
      (best === null || Math.abs(tone.hz - hz) < Math.abs(best.hz - hz))
        ? tone
        : best,
    null,
  );

function matched(read: readonly Read[], ratios: readonly number[], options: SoundOptions): HeardTone[] {
  const used = new Set<SoundTone>();
  const heard: HeardTone[] = [];
  read.forEach((own, i) => {
    for (const tone of own.tones) {
      if (used.has(tone)) continue;
      const others = read.map((other, j): { follow: SoundTone | null; stay: SoundTone | null } => {
        if (j === i) return { follow: tone, stay: tone };
        const ratio = (ratios[j] as number) / (ratios[i] as number);
        return {
          follow: near(other.tones, tone.hz * ratio, followsWithin),
          stay: near(other.tones, tone.hz, staysWithin),
        };
      });
      const apart = ratios.some((ratio) => Math.max(ratio, 1 / ratio) / 1 > leastRatio);
      const following = others.filter(({ follow }) => follow !== null).length;
      const staying = others.filter(({ stay }) => stay !== null).length;
      const follows =
        !apart || read.length < 2 || Math.max(following, staying) < 2 ? null : following >= staying;
      const mine = others.map(({ follow, stay }) => (follows === false ? stay : follow));
      for (const each of mine) if (each) used.add(each);
      const order = own.rpm === null ? null : (60 * tone.hz) / own.rpm;
      heard.push({
        hz: mine.map((each) => each?.hz ?? null),
        over: Math.max(...mine.map((each) => each?.over ?? 0)),
        order: follows === false ? null : order,
        follows,
        source: sourceOf(follows, order, options),
      });
    }
  });
  return heard.sort((a, b) => b.over - a.over).slice(0, 12);
}

/** A tone's source by its order; orders of blades and bars only if their numbers were given. */
function sourceOf(
  follows: boolean | null,
  order: number | null,
  { bars, poles = 2, blades }: SoundOptions,
): ToneSource {
  if (follows === false) return "fixed";
  if (order === null) return "unknown";
  const isOrder = (count: number | undefined): boolean => {
    if (count === undefined) return false;
    const times = Math.round(order / count);
    return times >= 1 && times <= 3 && Math.abs(order / count - times) < onOrder / 2;
  };
  if (Math.abs(order - 1) < onOrder) return "balance";
  if (isOrder(blades)) return "blades";
  if (isOrder(bars === undefined ? undefined : humpsPerTurn(bars, poles))) return "commutation";
  if (order < lowOrders) return "low-order";
  return order < bearingOrders && Math.abs(order - Math.round(order)) > 2 * onOrder ? "bearing" : "unknown";
}

/** Odds of each noise from the tones that stand out. */
function oddsOf(read: readonly Read[], tones: readonly HeardTone[]): Record<SoundNoise, number> {
  const most = (values: readonly number[]): number => Math.max(0, ...values);
  const highest = (tone: HeardTone): number => most(tone.hz.map((hz) => hz ?? 0));
  const high = tones.filter(
    (tone) => highest(tone) > highToneHz && tone.source !== "commutation" && tone.source !== "blades",
  );
  const rumble = most(
    tones
      .filter(
        (tone) =>
          highest(tone) < 300 &&
          (tone.source === "balance" ||
            tone.source === "low-order" ||
            tone.source === "bearing" ||
            tone.source === "unknown"),
      )
      .map(({ over }) => over),
  );
  const lowShare = most(read.map((own) => own.lowShare));
  const scores: Record<SoundNoise, number> = {
    quiet: 0,
    squeal: (most(high.filter(({ follows }) => follows !== false).map(({ over }) => over)) - 16) / 5,
    whistle: (most(high.filter(({ follows }) => follows === false).map(({ over }) => over)) - 14) / 5,
    rumble: (rumble - 15) / 5 + 3 * Math.max(0, lowShare - 0.5),
    tick: (most(read.map(({ blows }) => (blows.hz === null ? 0.5 : 1) * (blows.crest - 1))) - 2) * 1.6,
  };
  const total = soundNoises.reduce((sum, noise) => sum + Math.exp(Math.min(6, scores[noise])), 0);
  return Object.fromEntries(
    soundNoises.map((noise) => [noise, Math.exp(Math.min(6, scores[noise])) / total]),
  ) as Record<SoundNoise, number>;
}

function followsOf(
  noise: SoundNoise,
  tones: readonly HeardTone[],
  read: readonly Read[],
  ratios: readonly number[],
): boolean | null {
  if (noise === "quiet" || read.length < 2) return null;
  if (noise === "whistle") return false;
  if (noise === "tick") {
    const [first, ...rest] = read.map(({ blows }) => blows.hz);
    if (first === null || first === undefined) return null;
    const seen = rest.flatMap((hz, i) =>
      hz === null ? [] : [Math.abs(hz / first / (ratios[i + 1] as number) - 1) < 2 * followsWithin],
    );
    return seen.length === 0 ? null : seen.every(Boolean);
  }
  const own = tones.filter(({ hz }) =>
    hz.some((each) => each !== null && (noise === "squeal" ? each > highToneHz : each < 300)),
  );
  const told = own.find(({ follows }) => follows !== null);
  return told?.follows ?? null;
}
