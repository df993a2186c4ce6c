// Sounds are made here from the definition: broadband rush of air, and tones at known orders of a known speed.
import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../chance/randomSource";
import type { SoundRecording } from "../signal/soundTone";
import { blowsOf, meanSpectrum, spectrogramOf, tonesOf } from "../signal/soundTone";
import { motorSound } from "./motorSound";

interface Made {
  readonly rpm: number;
  readonly seed?: number;
  /** Loudness by order of the turn. */
  readonly orders?: Readonly<Record<number, number>>;
  /** Loudness by hertz. */
  readonly fixed?: Readonly<Record<number, number>>;
  readonly ticks?: number;
}

const rateHz = 16_000;
function recording(
  { rpm, seed = 3, orders = {}, fixed = {}, ticks = 0 }: Made,
  known = true,
): SoundRecording {
  const { normal } = randomSource(seed);
  let smooth = 0;
  const samples = Float32Array.from({ length: 3 * rateHz }, (_, i) => {
    const turn = ((rpm / 60) * i) / rateHz;
    smooth += 0.25 * (normal() - smooth);
    let value = 0.1 * smooth + 0.01 * normal();
    for (const [order, size] of Object.entries(orders))
      value += size * Math.sin(2 * Math.PI * Number(order) * turn);
    for (const [hz, size] of Object.entries(fixed))
      value += size * Math.sin((2 * Math.PI * Number(hz) * i) / rateHz);
    const since = (turn % 1) / (rpm / 60);
    return value + ticks * Math.exp(-since / 0.0015) * Math.sin(2 * Math.PI * 3000 * since);
  });
  return { samples, rateHz, rpm: known ? rpm : null };
}

const twice = (made: Omit<Made, "rpm">, known = true): SoundRecording[] => [
  recording({ ...made, rpm: 1800 }, known),
  recording({ ...made, rpm: 3000, seed: 4 }, known),
];

describe("what is heard", () => {
  test("an unbalanced wheel rumbles once per turn and follows the speed", () => {
    const sound = motorSound(twice({ orders: { 1: 0.15 } }));
    expect(sound.likeliest).toBe("rumble");
    expect(sound.followsSpeed).toBe(true);
    const [tone] = sound.tones;
    expect(tone).toMatchObject({ source: "balance", follows: true });
    expect(tone?.order).toBeCloseTo(1, 1);
    expect(tone?.hz[0]).toBeCloseTo(30, 0);
    expect(tone?.hz[1]).toBeCloseTo(50, 0);
  });

  test("a dry bearing squeals with the speed", () => {
    const sound = motorSound(twice({ orders: { 43.7: 0.05 } }));
    expect(sound).toMatchObject({ likeliest: "squeal", followsSpeed: true });
  });

  test("a whistle of the duct does not follow it", () => {
    const sound = motorSound(twice({ fixed: { 1870: 0.05 } }));
    expect(sound).toMatchObject({ likeliest: "whistle", followsSpeed: false });
    expect(sound.tones[0]).toMatchObject({ source: "fixed", follows: false, order: null });
  });

  test("something in the wheel ticks once per turn", () => {
    const sound = motorSound(twice({ ticks: 0.8 }));
    expect(sound).toMatchObject({ likeliest: "tick", followsSpeed: true });
    const { samples } = recording({ rpm: 1800, ticks: 0.8 });
    expect(blowsOf(samples, rateHz).hz).toBeCloseTo(30, 0);
  });

  test("the rush of air alone is quiet", () => {
    const sound = motorSound(twice({}));
    expect(sound.likeliest).toBe("quiet");
    expect(sound.followsSpeed).toBeNull();
  });

  test("commutation and blades are named if their numbers are given", () => {
    const sound = motorSound(twice({ orders: { 12: 0.03, 41: 0.03 } }), { bars: 12, blades: 41 });
    expect(sound.tones.map(({ source }) => source)).toEqual(
      expect.arrayContaining(["commutation", "blades"]),
    );
    expect(sound.likeliest).toBe("quiet");
  });

  test("without rpm the speeds are found from the tones themselves, and no orders are claimed", () => {
    const sound = motorSound(twice({ orders: { 12: 0.05, 43.7: 0.05, 1: 0.05 } }, false));
    expect(sound.speedRatios[1]).toBeCloseTo(3000 / 1800, 2);
    expect(sound.tones[0]).toMatchObject({ follows: true, order: null });
  });

  test("wrong speeds are recognised from the tones", () => {
    const [slow, fast] = twice({ orders: { 12: 0.05, 43.7: 0.05, 1: 0.05 } }) as [
      SoundRecording,
      SoundRecording,
    ];
    const sound = motorSound([slow, { ...fast, rpm: 2100 }]);
    expect(sound.speedRatios[1]).toBeCloseTo(3000 / 1800, 2);
    expect(sound.cannot).toContainEqual({
      code: "speeds-contradict-tones",
      recording: 1,
      given: expect.closeTo(1.17, 2),
      heard: expect.closeTo(1.67, 2),
    });
    expect(sound.tones[0]?.follows).toBe(true);
  });

  test("what cannot be determined is reported", () => {
    expect(motorSound([recording({ rpm: 1800 })]).cannot).toEqual([{ code: "one-speed" }]);
    const short = { ...recording({ rpm: 1800 }), samples: new Float32Array(100).fill(0.1) };
    expect(motorSound([short]).cannot).toContainEqual(
      expect.objectContaining({ code: "too-short", recording: 0 }),
    );
    const silent = { samples: new Float32Array(rateHz), rateHz, rpm: null };
    expect(motorSound([silent]).cannot).toContainEqual({ code: "silent", recording: 0 });
    expect(motorSound([{ ...silent, rateHz: 2000 }]).cannot).toContainEqual({
      code: "sampled-too-slowly",
      recording: 0,
      rateHz: 2000,
      neededHz: 4000,
    });
    const odds = Object.values(motorSound([]).odds);
    expect(odds.reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 9);
  });
});

describe("spectra of sound", () => {
  test("a tone stands out at its frequency", () => {
    const { samples } = recording({ rpm: 1800, fixed: { 1234: 0.05 } });
    expect(tonesOf(meanSpectrum(samples, rateHz))[0]?.hz).toBeCloseTo(1234, 0);
  });

  test("a spectrogram has the tone in its row, loudest at 0 dB, nothing below its floor", () => {
    const { samples } = recording({ rpm: 1800, fixed: { 2000: 0.5 } });
    const picture = spectrogramOf(samples, rateHz, 40, 32, 8000);
    expect(picture.decibels).toHaveLength(40 * 32);
    for (let column = 0; column < 40; column++) {
      const own = [...picture.decibels.subarray(column * 32, column * 32 + 32)];
      expect(Math.abs(own.indexOf(Math.max(...own)) - 8)).toBeLessThanOrEqual(1);
    }
    expect(Math.max(...picture.decibels)).toBeCloseTo(0, 6);
    expect(Math.min(...picture.decibels)).toBeGreaterThanOrEqual(picture.floor);
  });
});
