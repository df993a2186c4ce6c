// The closed forms are worked out by hand. White noise of variance s² on a line of amplitude A gives its height and
// its phase s²/2 each, once the line is shifted to zero frequency. White phase noise of variance q adds A² q/4 to the
// phase alone and, by its image at twice the line, A² q/8 to both.
import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../../chance/randomSource";
import { drawnRecording } from "../../testing/rippleRecording";
import { lineJitter } from "./lineJitter";

const rateHz = 20_000;
const count = 2 ** 16;

interface Line {
  readonly hz: number;
  readonly noise?: number;
  readonly phase?: number;
  readonly height?: number;
  readonly seed?: number;
}

function lineOf({ hz, noise = 0, phase = 0, height = 0, seed = 1 }: Line): Float32Array {
  const { normal } = randomSource(seed);
  return Float32Array.from(
    { length: count },
    (_, i) =>
      12 +
      (1 + height * normal()) * Math.cos((2 * Math.PI * hz * i) / rateHz + phase * normal()) +
      noise * normal(),
  );
}

describe("a line's jitter", () => {
  test.each([1, 2, 3, 4])("a clock in noise: its phase varies no more than its height (seed %s)", (seed) => {
    for (const hz of [73.31, 512.7, 1804.9]) {
      const told = lineJitter(lineOf({ hz, noise: 0.1, seed }), rateHz, 0, count, hz);
      expect(Math.abs(told?.deviations ?? 9)).toBeLessThan(3.5);
    }
  });

  test.each([
    [0, 0.1],
    [0.02, 0.1],
    [0.05, 0.1],
    [0.05, 0.05],
  ])("noise %s and phase jitter of %s radians: the closed form", (noise, phase) => {
    const hz = 1250.3;
    const told = lineJitter(lineOf({ hz, noise, phase }), rateHz, 0, count, hz);
    const [own, both] = [phase ** 2 / 4, noise ** 2 / 2 + phase ** 2 / 8];
    expect((told?.ratio ?? 0) / ((own + both) / both)).toBeGreaterThan(0.85);
    expect((told?.ratio ?? 0) / ((own + both) / both)).toBeLessThan(1.18);
    expect(told?.deviations).toBeGreaterThan(5);
  });

  test("a varying height is not jitter", () => {
    const told = lineJitter(lineOf({ hz: 640.2, noise: 0.02, height: 0.1 }), rateHz, 0, count, 640.2);
    expect(told?.ratio).toBeLessThan(0.6);
  });

  test("ripples slightly early and late show it, a PWM among them does not", () => {
    for (const jitter of [0.006, 0.015, 0.03]) {
      const trace = drawnRecording({
        bars: 12,
        rpm: 2900,
        seconds: 2,
        rateHz: 40_000,
        noise: 0.03,
        jitter,
        chopping: { hz: 931.27, amps: 0.8 },
      });
      const at = (hz: number) => lineJitter(trace.amps, trace.rateHz, 0, 2 ** 16, hz);
      expect(at((trace.rpm / 60) * 12)?.deviations).toBeGreaterThan(3);
      expect(Math.abs(at(931.27)?.deviations ?? 9)).toBeLessThan(3);
    }
  });

  test("too few bins around a line give no result", () => {
    expect(lineJitter(lineOf({ hz: 400 }), rateHz, 0, 1024, 400)).toBeNull();
  });
});
