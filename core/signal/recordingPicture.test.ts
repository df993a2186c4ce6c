import { describe, expect, test } from "@jest/globals";
import { recordingRecordSchema } from "../recording/storedRecording";
import { readRipple } from "../ripple/readRipple";
import { motorSound } from "../sound/motorSound";
import { drawnRecording } from "../testing/rippleRecording";
import { envelopeOf } from "./envelope";
import { mostKept, recordingPicture, spectrogramPicture, spectrumPicture } from "./recordingPicture";
import { spectrogramOf } from "./soundTone";

describe("a recording's picture", () => {
  test("keeps every spike at any zoom", () => {
    const samples = new Float32Array(100_000).fill(10);
    samples[12_345] = 30;
    samples[77_777] = -5;
    const { low, high } = envelopeOf(samples, { from: 0, to: samples.length }, 500);
    expect(low).toHaveLength(500);
    expect(high.indexOf(30)).toBe(Math.floor((12_345 / 100_000) * 500));
    expect(low.indexOf(-5)).toBe(Math.floor((77_777 / 100_000) * 500));
    expect(envelopeOf(samples, { from: 0, to: 3 }, 500).low).toHaveLength(3);
  });

  test("is stored in the format's shape, whole or cut to the steady part", () => {
    for (const seconds of [2, 20]) {
      const trace = drawnRecording({ bars: 12, rpm: 2400, seconds, rateHz: 20_000, noise: 0.02 });
      const figures = readRipple(trace, { bars: 12 });
      const { picture, kept } = recordingPicture(trace, figures.steadySeconds[0], 3000);
      expect(kept.length).toBe(Math.min(mostKept, seconds * 20_000));
      expect(picture.seconds).toBeCloseTo(seconds, 6);
      const record = {
        kind: "humps",
        name: "a.csv",
        motor: "M1",
        source: "file",
        setup: { key: "run", setting: "4" },
        // The reasons are stored as words.
        figures: { ...figures, because: "even", cannot: [] },
        picture,
      };
      expect(recordingRecordSchema.parse(JSON.parse(JSON.stringify(record)))).toEqual(
        JSON.parse(JSON.stringify(record)),
      );
    }
  });

  test("a spectrum's tallest point is at the tone", () => {
    const samples = Float32Array.from({ length: 40_000 }, (_, i) =>
      Math.sin((2 * Math.PI * 1000 * i) / 20_000),
    );
    const { topHz, decibels } = spectrumPicture(samples, 20_000, 4000);
    const at = decibels.indexOf(Math.max(...decibels));
    expect(((at + 0.5) * topHz) / decibels.length).toBeCloseTo(1000, -1);
    expect(Math.max(...decibels)).toBe(0);
  });

  test("a sound is stored in the format's shape", () => {
    const samples = Float32Array.from({ length: 16_000 }, (_, i) =>
      Math.sin((2 * Math.PI * 1000 * i) / 8000),
    );
    const figures = motorSound([{ samples, rateHz: 8000, rpm: 1800 }]);
    const spectrogram = spectrogramPicture(spectrogramOf(samples, 8000, 50, 32, 4000));
    expect(Math.max(...spectrogram.levels)).toBe(255);
    expect(Math.min(...spectrogram.levels)).toBeGreaterThanOrEqual(0);
    const picture = [
      { name: "a.wav", setting: "2", rpm: 1800, spectrum: spectrumPicture(samples, 8000, 4000), spectrogram },
    ];
    const record = {
      kind: "sound",
      name: "a.wav",
      motor: "M1",
      source: "file",
      setup: { key: "run", setting: "2" },
      figures: { ...figures, cannot: [] },
      picture,
    };
    expect(recordingRecordSchema.safeParse(JSON.parse(JSON.stringify(record))).success).toBe(true);
  });
});
