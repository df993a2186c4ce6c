import { describe, expect, test } from "@jest/globals";
import { medianOf } from "../../signal/currentRecording";
import { drawnRecording } from "../../testing/rippleRecording";
import { withoutChopping } from "./chopping";

const made = { bars: 12, rpm: 2900, seconds: 1.5, rateHz: 50_000, noise: 0.01 };
const whole = (trace: { readonly amps: Float32Array }) => ({ from: 0, to: trace.amps.length });

/** Root mean square of the difference of two recordings, without the ends. */
function apart(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let i = 500; i < a.length - 500; i++) sum += ((a[i] as number) - (b[i] as number)) ** 2;
  return Math.sqrt(sum / (a.length - 1000));
}

describe("a module's PWM", () => {
  test("far above the ripples is found to a hertz and removed, and the ripples stay", () => {
    const plain = drawnRecording({ ...made, noise: 0 });
    const chopped = drawnRecording({ ...made, noise: 0, chopping: { hz: 15_432.1, amps: 1 } });
    const { trace, chopping, rivals } = withoutChopping(chopped, whole(chopped));
    expect(chopping?.hz).toBeCloseTo(15_432.1, 0);
    expect(rivals).toBeNull();
    // A triangle of 1 A amplitude is 0.58 A root mean square. Its third harmonic, a ninth as high, lies beyond half
    // the sampling rate and folds back to 3 704 Hz, where it is removed too; the fifth folds back far above the
    // ripples.
    expect(apart(chopped.amps, plain.amps)).toBeGreaterThan(0.5);
    expect(apart(trace.amps, plain.amps)).toBeLessThan(0.58 / 25);
  });

  test("among the ripples is recognised as a clock if the speed drifts", () => {
    const plain = drawnRecording({ ...made, noise: 0, drift: 0.03 });
    const chopped = drawnRecording({ ...made, noise: 0, drift: 0.03, chopping: { hz: 930.5, amps: 1 } });
    const { trace, chopping } = withoutChopping(chopped, whole(chopped));
    expect(chopping?.hz).toBeCloseTo(930.5, 0);
    expect(apart(trace.amps, plain.amps)).toBeLessThan(0.06);
  });

  test.each([
    ["well apart", 930.5],
    ["close beside the humps", 586.3],
    ["slower than the humps", 411.9],
  ])(
    "among the ripples is recognised at a steady speed too, since ripples come early and late: %s",
    (_, hz) => {
      const steady = { ...made, noise: 0.03, jitter: 0.012 };
      const chopped = drawnRecording({ ...steady, chopping: { hz, amps: 1 } });
      const { chopping, rivals } = withoutChopping(chopped, whole(chopped));
      expect(rivals).toBeNull();
      expect(chopping?.hz).toBeCloseTo(hz, 0);
      const plain = drawnRecording(steady);
      expect(withoutChopping(plain, whole(plain))).toMatchObject({ chopping: null, rivals: null });
    },
  );

  test.each([
    { bars: 12, rpm: 2027, hz: 854.4 },
    { bars: 12, rpm: 2279, hz: 1351.9 },
    { bars: 8, rpm: 2773, hz: 1227.1 },
    { bars: 14, rpm: 688, hz: 1319.6 },
  ])(
    "at $hz Hz is recognised beside the comb of lines that a bad bar of $bars makes at $rpm rpm, and no line of the comb is taken for one",
    ({ bars, rpm, hz }) => {
      const heights = (hump: number): number => (hump % (bars / 2) === 1 ? 0.1 : 1);
      for (const mark of [0, 0.3]) {
        const bad = { ...made, bars, rpm, heights, mark, noise: 0.03, jitter: 0.02, drift: 0.002 };
        const chopped = drawnRecording({ ...bad, chopping: { hz, amps: 1.3 } });
        expect(withoutChopping(chopped, whole(chopped)).chopping?.hz).toBeCloseTo(hz, 0);
        const plain = drawnRecording(bad);
        expect(withoutChopping(plain, whole(plain)).chopping).toBeNull();
      }
    },
  );

  test("is recognised if the speed drifts so far that the ripples are not a line of the whole", () => {
    const chopped = drawnRecording({ ...made, noise: 0.03, drift: 0.06, chopping: { hz: 930.5, amps: 1.4 } });
    expect(withoutChopping(chopped, whole(chopped)).chopping?.hz).toBeCloseTo(930.5, 0);
  });

  test("what turns with the shaft is not a clock, since each ripple is early or late", () => {
    for (const seed of [1, 3, 5])
      for (const drift of [0, 0.002]) {
        const heights = (hump: number): number => (hump % 12 === seed ? 0.3 : 1);
        const trace = drawnRecording({ ...made, noise: 0.03, jitter: 0.02, drift, mark: 0.2, heights, seed });
        expect(withoutChopping(trace, whole(trace))).toMatchObject({ chopping: null, rivals: null });
      }
  });

  test("what turns with the shaft is not a clock: ripples, their harmonics, a mark, a bad bar", () => {
    for (const drift of [0, 0.003, 0.03, 0.1]) {
      const trace = drawnRecording({
        ...made,
        drift,
        mark: 0.3,
        heights: (hump) => (hump % 6 === 1 ? 0.2 : 1),
      });
      expect(withoutChopping(trace, whole(trace))).toMatchObject({ chopping: null, rivals: null });
    }
  });

  test("a rhythm that wanders back and forth is not a clock where it turns around", () => {
    const rateHz = 20_000;
    const amps = Float32Array.from({ length: 400_000 }, (_, i) => {
      const hertz = 580 * (1 + 0.01 * Math.sin(i / 1e6));
      return 30 + 2 * Math.abs(Math.sin((Math.PI * hertz * i) / rateHz));
    });
    expect(withoutChopping({ amps, rateHz }, { from: 0, to: amps.length }).chopping).toBeNull();
  });

  test("two clocks that share no turn are rivals; with known ripples per turn only orders of that turn belong together", () => {
    const chopped = drawnRecording({ ...made, noise: 0, chopping: { hz: 930.5, amps: 1 } });
    const { rivals, chopping } = withoutChopping(chopped, whole(chopped), undefined, { perTurn: 12 });
    expect(chopping).toBeNull();
    const [low = 0, high = 0] = [...(rivals ?? [])].sort((a, b) => a - b);
    expect(low).toBeCloseTo(580, 0);
    expect(high).toBeCloseTo(930.5, 0);
    const swung = drawnRecording({ ...made, noise: 0, mark: 0.4 });
    expect(withoutChopping(swung, whole(swung), undefined, { perTurn: 12 }).rivals).toBeNull();
  });

  test.each([
    { bars: 18, rpm: 1256, hz: 823.7, turn: { perTurn: 18 } },
    { bars: 11, rpm: 2484, hz: 465.5, turn: { perTurn: 22 } },
    { bars: 11, rpm: 2484, hz: 465.5, turn: { rpm: 2500 } },
    { bars: 18, rpm: 1256, hz: 823.7, turn: null },
  ])(
    "at $hz Hz is separated from the ripples of $bars bars by the lines of unequal bars, if neither drifts nor jitters",
    ({ bars, rpm, hz, turn }) => {
      const own = [0, 0.03, -0.02, 0.01, -0.03, 0.025, -0.01, 0.005, 0.02, -0.025, 0.015];
      const heights = (hump: number): number => 1 + (own[hump % (bars === 18 ? 9 : 11)] ?? 0);
      const trace = drawnRecording({ ...made, bars, rpm, heights, noise: 0.03, chopping: { hz, amps: 1.3 } });
      const { chopping, rivals } = withoutChopping(trace, whole(trace), undefined, turn);
      expect(rivals).toBeNull();
      expect(chopping?.hz).toBeCloseTo(hz, 0);
      const alike = drawnRecording({ ...made, bars, rpm, noise: 0.03, chopping: { hz, amps: 1.3 } });
      expect(withoutChopping(alike, whole(alike), undefined, turn).chopping).toBeNull();
    },
  );

  test("a speed known within a few per cent leaves few possible turns: 580 Hz is 12 per turn at 2900 rpm, and 930.5 Hz is 19.25", () => {
    const chopped = drawnRecording({ ...made, noise: 0, chopping: { hz: 930.5, amps: 1 } });
    const rivalsAt = (rpm: number) =>
      [...(withoutChopping(chopped, whole(chopped), undefined, { rpm }).rivals ?? [])].sort((a, b) => a - b);
    for (const rpm of [2850, 2900, 2950])
      expect(rivalsAt(rpm).map((hz) => Math.round(hz / 10))).toEqual([58, 93]);
    const swung = drawnRecording({ ...made, noise: 0, mark: 0.4 });
    expect(withoutChopping(swung, whole(swung), undefined, { rpm: 2850 }).rivals).toBeNull();
  });

  test("a given frequency is used, and one above the sampling limit is left", () => {
    const chopped = drawnRecording({ ...made, chopping: { hz: 930.5, amps: 1 } });
    expect(withoutChopping(chopped, whole(chopped), 930.5).chopping?.peakToPeakAmps).toBeCloseTo(2, 0);
    const { trace, chopping } = withoutChopping(chopped, whole(chopped), 40_000);
    expect(chopping).toBeNull();
    expect(trace.amps).toBe(chopped.amps);
    expect(medianOf(trace.amps)).toBeGreaterThan(15);
  });
});
