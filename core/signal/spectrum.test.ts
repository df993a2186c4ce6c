import { describe, expect, test } from "@jest/globals";
import FFT from "fft.js";
import { peaksOf, type Spectrum, spectrumOf } from "./spectrum";

const rateHz = 10_000;
const tone = (hz: number, size: number, count = 4096): Float64Array =>
  Float64Array.from({ length: count }, (_, i) => size * Math.sin((2 * Math.PI * hz * i) / rateHz));

/** Two tones at once. */
const twoTones = (first: Float64Array, second: Float64Array): Float64Array =>
  first.map((value, i) => value + (second[i] as number));

/** The tallest peak from a frequency on. */
const tallest = (spectrum: Spectrum, floorHz: number) => peaksOf(spectrum, floorHz, rateHz, 1)[0];

describe("the spectrum", () => {
  test("agrees with the discrete Fourier transform by its definition", () => {
    // X[k] = Σ w[n] (x[n] − mean) e^(−2πi k n / N), Hann window; any signal-processing handbook.
    const samples = Float64Array.from(
      { length: 64 },
      (_, i) => Math.sin(i * 0.7) + 0.3 * Math.cos(i * 2.1) + 2,
    );
    const mean = samples.reduce((sum, value) => sum + value, 0) / 64;
    const { magnitude, binHz } = spectrumOf(samples, 64);
    expect(binHz).toBe(1);
    for (let k = 0; k < 32; k++) {
      let [re, im] = [0, 0];
      samples.forEach((value, n) => {
        const own = (value - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * n) / 64));
        re += own * Math.cos((2 * Math.PI * k * n) / 64);
        im -= own * Math.sin((2 * Math.PI * k * n) / 64);
      });
      expect(magnitude[k]).toBeCloseTo(Math.hypot(re, im), 8);
    }
  });

  test("the FFT package gives its own tests' spectrum of four samples (from memory)", () => {
    const fft = new FFT(4);
    const out = fft.createComplexArray();
    fft.realTransform(out, [1, Math.SQRT1_2, 0, -Math.SQRT1_2]);
    // Only the first half of a real signal's spectrum is promised.
    [1, 0, 1, -Math.SQRT2, 1, 0].forEach((value, i) => void expect(out[i]).toBeCloseTo(value, 6));
  });

  test("a tone of amplitude 1 is N/4 high under a Hann window", () => {
    // The window's coherent gain is one half, and half of a real tone lies at negative frequencies.
    const hz = (100 * rateHz) / 4096;
    expect(spectrumOf(tone(hz, 1), rateHz).magnitude[100]).toBeCloseTo(1024, 3);
  });

  test.each([123.4, 500, 777.7, 2345.6])("%p Hz is found between the bins", (hz) => {
    const found = tallest(spectrumOf(tone(hz, 1), rateHz), 50);
    expect(Math.abs((found?.hz ?? 0) - hz)).toBeLessThan(0.05 * (rateHz / 4096));
    expect(found?.magnitude).toBeGreaterThan(0.96 * 1024);
    expect(found?.magnitude).toBeLessThan(1.04 * 1024);
  });

  test("whatever lies below the floor is ignored", () => {
    const both = twoTones(tone(60, 5), tone(900, 1));
    expect(tallest(spectrumOf(both, rateHz), 200)?.hz).toBeCloseTo(900, 0);
    expect(tallest(spectrumOf(both, rateHz), 20)?.hz).toBeCloseTo(60, 0);
  });

  test("a steady current has no lines", () => {
    const { magnitude } = spectrumOf(new Float64Array(1024).fill(7), rateHz);
    expect(Math.max(...magnitude)).toBeLessThan(1e-9);
  });

  test("any number of samples is accepted, filled with zeros up to a power of two", () => {
    const { magnitude, binHz } = spectrumOf(tone(500, 1, 3000), rateHz);
    expect(magnitude).toHaveLength(2048);
    expect(binHz).toBeCloseTo(rateHz / 4096, 9);
    expect(tallest({ magnitude, binHz }, 50)?.hz).toBeCloseTo(500, 0);
  });

  test("peaks come tallest first, with weights if requested", () => {
    const both = twoTones(tone(300, 2), tone(900, 1));
    const found = peaksOf(spectrumOf(both, rateHz), 50, 4000, 2);
    expect(found.map(({ hz }) => Math.round(hz))).toEqual([300, 900]);
    expect((found[0]?.magnitude ?? 0) / (found[1]?.magnitude ?? 1)).toBeCloseTo(2, 1);
    const weighed = peaksOf(spectrumOf(both, rateHz), 50, 4000, 1, (magnitude, hz) => magnitude * hz);
    expect(weighed[0]?.hz).toBeCloseTo(900, 0);
  });
});
