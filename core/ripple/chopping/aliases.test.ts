// A harmonic folds to |k f − n rate| for the nearest n (the sampling theorem, any textbook of signal processing); the
// triangle's odd harmonics fall with the square of their order.
import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../../chance/randomSource";
import { drawnRecording } from "../../testing/rippleRecording";
import { removeAliases } from "./aliases";

const rateHz = 60_000;
const count = 2 ** 17;

const tone = (hz: number, amps: number, noise = 0.01): Float32Array => {
  const { normal } = randomSource(4);
  return Float32Array.from(
    { length: count },
    (_, i) => 9 + amps * Math.sin((2 * Math.PI * hz * i) / rateHz + 0.7) + noise * normal(),
  );
};

/** Amplitude at a frequency in some amps, by direct sums. */
function amplitudeAt(amps: Float32Array, hz: number): number {
  let [re, im] = [0, 0];
  amps.forEach((value, i) => {
    const angle = (2 * Math.PI * hz * i) / rateHz;
    const window = 1 - Math.cos((2 * Math.PI * i) / amps.length);
    re += (value - 9) * window * Math.cos(angle);
    im += (value - 9) * window * Math.sin(angle);
  });
  return (2 * Math.hypot(re, im)) / amps.length;
}

const without = (amps: Float32Array, choppingHz: number): Float32Array => {
  const own = amps.slice();
  removeAliases({ amps: own, rateHz }, { from: 0, to: own.length }, choppingHz);
  return own;
};

describe("harmonics of a PWM that fold back among the ripples", () => {
  test.each([
    { chopping: 19_559.58, harmonic: 3, back: 1321.26 },
    { chopping: 12_015.68, harmonic: 5, back: 78.4 },
    { chopping: 14_700.3, harmonic: 4, back: 1198.8 },
    { chopping: 18_345.74, harmonic: 3, back: 4962.78 },
  ])("the $harmonic of $chopping Hz folds back to $back Hz and is removed", ({ chopping, back }) => {
    const amps = tone(back, 0.1);
    expect(amplitudeAt(amps, back)).toBeCloseTo(0.1, 3);
    expect(amplitudeAt(without(amps, chopping), back)).toBeLessThan(0.001);
  });

  test("of a triangular PWM nothing is left there, and a rhythm of the motor stays", () => {
    const trace = drawnRecording({
      bars: 12,
      rpm: 2900,
      seconds: count / rateHz,
      rateHz,
      noise: 0.01,
      chopping: { hz: 19_559.58, amps: 1 },
    });
    const left = without(trace.amps, 19_559.58);
    const third = 8 / Math.PI ** 2 / 9;
    expect(amplitudeAt(trace.amps, 1321.26)).toBeCloseTo(third, 2);
    expect(amplitudeAt(left, 1321.26)).toBeLessThan(third / 30);
    expect(amplitudeAt(left, 580)).toBeCloseTo(amplitudeAt(trace.amps, 580), 3);
  });

  test.each([
    ["a line a few hertz beside where one would come back", 1325.3, 19_559.58],
    ["a line that is no harmonic's", 640.5, 19_559.58],
    ["what only an eighth harmonic would make, too low to matter", 1321.26, 121_321.26 / 8],
  ])("%s stays", (_, hz, chopping) => {
    const amps = tone(hz, 0.1);
    expect(amplitudeAt(without(amps, chopping), hz)).toBeCloseTo(0.1, 3);
  });

  test("noise alone is left unchanged", () => {
    const amps = tone(100, 0);
    expect(without(amps, 19_559.58)).toEqual(amps);
  });
});
