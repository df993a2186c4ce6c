import { z } from "zod";
import type { CurrentRecording } from "./currentRecording";
import { envelopeOf } from "./envelope";
import { meanSpectrum, type Spectrogram } from "./soundTone";

const figures = (most: number) => z.array(z.number()).max(most);

export const spectrumPictureSchema = z.strictObject({
  topHz: z.number().positive(),
  /** Decibels below the tallest line, evenly spaced from 0 to `topHz`; each point is the tallest of its bins. */
  decibels: figures(2000),
});
export type SpectrumPicture = z.infer<typeof spectrumPictureSchema>;

const spectrumPoints = 700;
const spectrumFloor = -80;

/** A spectrum for plotting up to some frequency, with the tallest bin at each point. */
export function spectrumPicture(samples: Float32Array, rateHz: number, topHz: number): SpectrumPicture {
  const { magnitude, binHz } = meanSpectrum(samples, rateHz);
  const top = Math.min(topHz, rateHz / 2);
  const bins = Math.max(2, Math.min(magnitude.length, Math.ceil(top / binHz)));
  const points = Math.min(spectrumPoints, bins);
  const tallest = magnitude.subarray(1, bins).reduce((best, value) => Math.max(best, value), 1e-300);
  const decibels = Array.from({ length: points }, (_, point) => {
    const first = Math.floor((point * bins) / points);
    const last = Math.max(first + 1, Math.floor(((point + 1) * bins) / points));
    let own = 1e-300;
    for (let bin = Math.max(1, first); bin < last; bin++) own = Math.max(own, magnitude[bin] as number);
    return Math.round(10 * Math.max(spectrumFloor, 20 * Math.log10(own / tallest))) / 10;
  });
  return { topHz: bins * binHz, decibels };
}

export const recordingPictureSchema = z.strictObject({
  seconds: z.number().nonnegative(),
  rateHz: z.number().positive(),
  samples: z.number().int().nonnegative(),
  low: figures(4000),
  high: figures(4000),
  spectrum: spectrumPictureSchema.nullable(),
  /** Start of the samples stored with the picture. */
  keptFrom: z.number().nonnegative(),
});
/** A current recording as it is stored: an envelope of the whole, its spectrum, and the start of the stored samples. */
export type RecordingPicture = z.infer<typeof recordingPictureSchema>;

const columnsKept = 1500;
/** Number of samples stored for zooming in; some fifteen seconds at 20 kHz. */
export const mostKept = 300_000;

/** Makes what is stored of a recording: its picture, and the samples from where it runs steadily. */
export function recordingPicture(
  { amps, rateHz }: CurrentRecording,
  steadyFrom: number,
  topHz: number,
): { picture: RecordingPicture; kept: Float32Array } {
  const from =
    amps.length <= mostKept ? 0 : Math.min(Math.round(steadyFrom * rateHz), amps.length - mostKept);
  const kept = amps.slice(from, from + mostKept);
  const envelope = envelopeOf(amps, { from: 0, to: amps.length }, columnsKept);
  return {
    kept,
    picture: {
      seconds: amps.length / rateHz,
      rateHz,
      samples: amps.length,
      ...envelope,
      spectrum: amps.length < 256 ? null : spectrumPicture(kept, rateHz, topHz),
      keptFrom: from / rateHz,
    },
  };
}

export const spectrogramPictureSchema = z.strictObject({
  columns: z.number().int().min(1).max(400),
  rows: z.number().int().min(1).max(200),
  topHz: z.number().positive(),
  seconds: z.number().positive(),
  /** 0 at the quietest shown to 255 at the loudest, by column, the lowest frequency first. */
  levels: figures(80_000),
});
export type SpectrogramPicture = z.infer<typeof spectrogramPictureSchema>;

/** A spectrogram in 256 levels, for storing and painting. */
export const spectrogramPicture = ({
  columns,
  rows,
  topHz,
  seconds,
  decibels,
  floor,
}: Spectrogram): SpectrogramPicture => ({
  columns,
  rows,
  topHz,
  seconds,
  levels: Array.from(decibels, (own) => Math.round(255 * (1 - own / floor))),
});
