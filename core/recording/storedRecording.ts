import { z } from "zod";
import { keyPositions } from "../circuit/parts/ignition";
import {
  recordingPictureSchema,
  spectrogramPictureSchema,
  spectrumPictureSchema,
} from "../signal/recordingPicture";
import { soundNoises } from "../sound/soundNoise";

/**
 * Figures of a recording as stored with a job: the results of `readHumps` and `motorSound`, checked when they are
 * read.
 */
const finite = z.number();
const maybe = finite.nullable();
const short = z.string().max(400);
const list = (most: number) => z.array(finite).max(most);

export const rippleRecordSchema = z.strictObject({
  meanAmps: finite,
  peakToPeakAmps: finite,
  humpHz: maybe,
  humpsPerTurn: maybe,
  bars: maybe,
  rpm: maybe,
  humpAmps: list(200),
  badHumps: list(200),
  verdict: z.enum(["even", "uneven", "missing", "unclear"]),
  cannot: z.array(short).max(20),
  because: short,
  errorAmps: list(200),
  badBars: maybe,
  turns: maybe,
  wanderAmps: maybe,
  turnAmps: list(5000),
  driftHz: z.tuple([finite, finite]).nullable(),
  startUp: z.strictObject({ inrushAmps: finite, atSeconds: finite, settleSeconds: finite }).nullable(),
  dropouts: z.array(z.strictObject({ atSeconds: finite, seconds: finite })).max(50),
  dropoutCount: finite,
  chopping: z.strictObject({ hz: finite, peakToPeakAmps: finite }).nullable(),
  steadySeconds: z.tuple([finite, finite]),
});

export const soundSchema = z.strictObject({
  tones: z
    .array(
      z.strictObject({
        hz: z.array(maybe).max(3),
        over: finite,
        order: maybe,
        follows: z.boolean().nullable(),
        source: z.enum(["balance", "low-order", "bearing", "blades", "commutation", "fixed", "unknown"]),
      }),
    )
    .max(12),
  odds: z.record(z.enum(soundNoises), finite),
  likeliest: z.enum(soundNoises),
  followsSpeed: z.boolean().nullable(),
  speedRatios: list(3),
  cannot: z.array(short).max(20),
});

const setup = z.strictObject({
  key: z.enum(keyPositions),
  setting: z.string().max(16),
  engine: z.boolean().optional(),
});

/** A recording and what it showed. */
export const recordingRecordSchema = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("humps"),
    name: z.string().min(1).max(120),
    motor: z.string().min(1).max(32),
    source: z.string().min(1).max(120),
    setup,
    figures: rippleRecordSchema,
    picture: recordingPictureSchema,
  }),
  z.strictObject({
    kind: z.literal("sound"),
    name: z.string().min(1).max(200),
    motor: z.string().min(1).max(32),
    source: z.string().min(1).max(120),
    setup,
    figures: soundSchema,
    picture: z
      .array(
        z.strictObject({
          name: z.string().max(120),
          setting: z.string().max(16),
          rpm: maybe,
          spectrum: spectrumPictureSchema,
          spectrogram: spectrogramPictureSchema,
        }),
      )
      .min(1)
      .max(3),
  }),
]);
export type RecordingRecord = z.infer<typeof recordingRecordSchema>;
export type RippleRecord = Extract<RecordingRecord, { kind: "humps" }>;
export type SoundRecord = Extract<RecordingRecord, { kind: "sound" }>;
