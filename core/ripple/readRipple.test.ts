// Recordings come from two models other than the analyser's own: half-sines generated from the definition (bars,
// poles, speed and heights known), and the winding's equations integrated over time. Ripples per turn are the least
// common multiple of bars and poles: 12 and 2 give 12, 11 and 2 give 22 (stated in the trade; arithmetic).
import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../chance/randomSource";
import { simulatedRecording } from "../instrument/windingModel";
import { barsFor, humpsPerTurn, possibleHumps } from "../motor/commutator";
import { motorConstants } from "../motor/motorConstants";
import { blowerConstants as constants } from "../testing/blowerMotor";
import { drawnRecording } from "../testing/rippleRecording";
import { readRipple } from "./readRipple";

test.each([
  [12, 2, 12],
  [11, 2, 22],
  [14, 4, 28],
  [16, 2, 16],
])("%p bars and %p poles give %p ripples per turn", (bars, poles, humps) =>
  expect(humpsPerTurn(bars, poles)).toBe(humps),
);

test("lists every number of bars that gives this many ripples", () => {
  expect(barsFor(12, 2)).toEqual([12]);
  expect(barsFor(22, 2)).toEqual([11, 22]);
  expect(barsFor(13, 2)).toEqual([]);
  expect(possibleHumps(2).every((count) => count % 2 === 0)).toBe(true);
});

const made = { bars: 12, rpm: 2900, seconds: 1, rateHz: 20_000, noise: 0.01 };
/** One bad bar of twelve passes both brushes, half a turn apart. */
const bad = (hump: number): number => (hump % 6 === 2 ? 0.1 : 1);

describe("a motor's ripples, half-sines", () => {
  test.each([
    { bars: 12, rpm: 2900 },
    { bars: 11, rpm: 3100 },
    { bars: 16, rpm: 1450 },
    { bars: 24, rpm: 4200 },
  ])("$bars bars at $rpm rpm are even, and the speed is right within one in a thousand", ({ bars, rpm }) => {
    const humps = readRipple(drawnRecording({ ...made, bars, rpm }), { bars });
    expect(humps.verdict).toBe("even");
    expect(Math.abs((humps.rpm ?? 0) / rpm - 1)).toBeLessThan(0.001);
    expect(humps.humpAmps).toHaveLength(humpsPerTurn(bars, 2));
    for (const height of humps.humpAmps) expect(Math.abs(height - 0.9)).toBeLessThan(0.1);
    expect(humps.cannot).toEqual([]);
    // The mean of a half-sine is 2/π of its height.
    expect(humps.meanAmps).toBeCloseTo(15 + 2 / Math.PI, 1);
  });

  test("amps a hundred times too high are recognised as a wrong probe scale, and judged anyway", () => {
    const { amps, rateHz } = drawnRecording(made);
    const humps = readRipple({ amps: amps.map((own) => 100 * own), rateHz }, { bars: 12 });
    expect(humps.cannot).toEqual([{ code: "wrong-scale", meanAmps: expect.closeTo(1564, 0) }]);
    expect(humps.verdict).toBe("even");
  });

  test("a bad bar shows once per brush: two ripples of the turn are bad, one bar, and the rpm stays", () => {
    const humps = readRipple(drawnRecording({ ...made, heights: bad }), { bars: 12 });
    expect(humps.verdict).toBe("missing");
    expect(humps.badHumps).toHaveLength(2);
    expect(((humps.badHumps[1] ?? 0) - (humps.badHumps[0] ?? 0)) % 6).toBe(0);
    expect(humps.badBars).toBe(1);
    expect(Math.abs((humps.rpm ?? 0) / 2900 - 1)).toBeLessThan(0.001);
  });

  test("a worn bar is uneven, not missing", () => {
    const humps = readRipple(drawnRecording({ ...made, heights: (hump) => (hump % 6 === 4 ? 0.45 : 1) }), {
      bars: 12,
    });
    expect(humps.verdict).toBe("uneven");
    expect(humps.badHumps).toHaveLength(2);
  });

  test("noise alone gives no rpm, whatever bars are given", () => {
    const { normal } = randomSource(3);
    const amps = Float32Array.from({ length: 40_000 }, () => 12 + 0.2 * normal());
    for (const bars of [10, 12, 22])
      expect(readRipple({ amps, rateHz: 20_000 }, { bars })).toMatchObject({
        humpHz: null,
        rpm: null,
        verdict: "unclear",
      });
  });

  test("if half the ripples are bad, the good ones are the reference", () => {
    const half = readRipple(drawnRecording({ ...made, heights: (hump) => (hump % 6 < 3 ? 0.1 : 1) }), {
      bars: 12,
      aboutRpm: 2700,
    });
    expect(half.verdict).toBe("missing");
    expect(half.badHumps).toHaveLength(6);
  });

  test("a drifting speed, ripple jitter and a coarse clamp change neither rpm nor verdict", () => {
    const trace = drawnRecording({
      ...made,
      seconds: 2,
      drift: 0.08,
      jitter: 0.03,
      noise: 0.03,
      heights: bad,
    });
    const humps = readRipple(trace, { bars: 12 });
    expect(Math.abs((humps.rpm ?? 0) / trace.rpm - 1)).toBeLessThan(0.005);
    expect(humps.verdict).toBe("missing");
    expect((humps.driftHz?.[1] ?? 0) / (humps.driftHz?.[0] ?? 1)).toBeGreaterThan(1.04);
  });

  test("a given rpm determines the ripples per turn, and the bars if only one number fits", () => {
    const twelve = readRipple(drawnRecording(made), { rpm: 2850 });
    expect(twelve).toMatchObject({ humpsPerTurn: 12, bars: 12 });
    expect(twelve.rpm).toBeCloseTo(2900, -1);
    const eleven = readRipple(drawnRecording({ ...made, bars: 11 }), { rpm: 2900 });
    expect(eleven).toMatchObject({ humpsPerTurn: 22, bars: null });
    expect(eleven.cannot).toContainEqual({ code: "bars-alike", humpsPerTurn: 22, bars: [11, 22] });
    expect(readRipple(drawnRecording(made), { rpm: 12_000 }).cannot).not.toEqual([]);
    expect(readRipple(drawnRecording(made), { bars: 12, rpm: 2000 }).verdict).toBe("unclear");
  });

  test("a variation once per turn determines the turn, a bad bar alone does not", () => {
    const swung = readRipple(drawnRecording({ ...made, mark: 0.3 }));
    expect(swung).toMatchObject({ humpsPerTurn: 12, bars: 12, verdict: "even" });
    expect(swung.rpm).toBeCloseTo(2900, -1);
    expect(swung.wanderAmps).toBeCloseTo(0.6, 1);
    const both = readRipple(drawnRecording({ ...made, mark: 0.3, heights: bad }));
    expect(both).toMatchObject({ humpsPerTurn: 12, bars: 12, verdict: "missing" });
    const dip = readRipple(drawnRecording({ ...made, heights: bad }));
    expect(dip).toMatchObject({ rpm: null, bars: null, humpsPerTurn: null, verdict: "missing" });
    expect(dip.cannot).toContainEqual({ code: "repeats-not-by-turn", humps: 6 });
  });

  test("PWM is separated from the ripples and removed, far above them or beside them", () => {
    const far = readRipple(drawnRecording({ ...made, rateHz: 60_000, chopping: { hz: 12_345, amps: 1 } }), {
      bars: 12,
    });
    expect(far.chopping?.hz).toBeCloseTo(12_345, 0);
    expect(far).toMatchObject({ verdict: "even" });
    const beside = { ...made, rateHz: 40_000, drift: 0.04, chopping: { hz: 1_234, amps: 1 } };
    const near = readRipple(drawnRecording(beside), { bars: 12 });
    expect(near.chopping?.hz).toBeCloseTo(1_234, 0);
    expect(near.rpm).toBeCloseTo(2900, -1);
    expect(
      readRipple(drawnRecording({ ...beside, drift: 0 }), { bars: 12, choppingHz: 1_234 }).rpm,
    ).toBeCloseTo(2900, -1);
    // Without drift, nothing tells which of two clock-steady rhythms is the motor's.
    const alike = readRipple(drawnRecording({ ...beside, drift: 0 }), { bars: 12 });
    expect(alike).toMatchObject({ rpm: null, verdict: "unclear" });
    expect(alike.cannot.map(({ code }) => code)).toContain("two-rhythms");
  });

  test.each([1528.3, 1531.8, 1535])(
    "ripples that cross the PWM's own frequency, here %p Hz, are not removed with it, nor if it was given slightly wrong",
    (hz) => {
      for (const drift of [0.002, 0.01, 0.02]) {
        const made = { bars: 13, rpm: 3535, seconds: 1.2, rateHz: 60_000, noise: 0.05, drift, jitter: 0.01 };
        const crossed = drawnRecording({ ...made, chopping: { hz, amps: 1.2 } });
        const { rpm } = readRipple(crossed, { bars: 13, choppingHz: Math.round(hz) });
        expect(Math.abs((rpm ?? 0) / crossed.rpm - 1)).toBeLessThan(0.005);
      }
    },
  );

  test("what cannot be determined is null, with its reason", () => {
    const noBars = readRipple(drawnRecording(made));
    expect(noBars).toMatchObject({ rpm: null, humpsPerTurn: null, bars: null, verdict: "even" });
    expect(noBars.humpHz).toBeCloseTo((2900 * 12) / 60, 0);
    expect(noBars.cannot).toContainEqual({ code: "no-mark" });
    const slow = readRipple(drawnRecording({ ...made, rateHz: 2000 }), { bars: 12 });
    expect(slow).toMatchObject({ verdict: "unclear", humpAmps: [] });
    expect(slow.cannot).toContainEqual({
      code: "sampled-too-slowly",
      rateHz: 2000,
      neededHz: expect.closeTo(8 * 580, -2),
    });
    expect(
      readRipple(drawnRecording({ ...made, rateHz: 900 }), { bars: 12, rpm: 2900 }).cannot,
    ).toContainEqual({
      code: "sampled-too-slowly",
      rateHz: 900,
      neededHz: 4640,
    });
    const short = readRipple(drawnRecording({ ...made, seconds: 0.05 }), { bars: 12 });
    expect(short.cannot.map(({ code }) => code)).toContain("too-few-turns");
    const flat = readRipple({ amps: new Float32Array(4000).fill(12), rateHz: 10_000 }, { bars: 12 });
    expect(flat).toMatchObject({ verdict: "unclear", humpHz: null });
    expect(readRipple({ amps: new Float32Array(3), rateHz: 10_000 }).cannot).toEqual([
      { code: "too-few-samples", samples: 3, needed: 64 },
    ]);
    const trace = drawnRecording({ ...made, noise: 0 });
    const clipped = readRipple(
      { ...trace, amps: trace.amps.map((value) => Math.min(15.8, value)) },
      { bars: 12 },
    );
    expect(clipped.cannot).toContainEqual({ code: "clipped" });
    const noisy = readRipple(drawnRecording({ ...made, noise: 3 }), { bars: 12 });
    expect(noisy.verdict).toBe("unclear");
  });

  test("long work reports its progress", () => {
    const shares: number[] = [];
    readRipple(drawnRecording(made), { bars: 12, onProgress: (share) => shares.push(share) > 0 });
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBe(1);
  });
});

describe("a motor's ripples, from the winding's equations", () => {
  const motor = { constants, bars: 12, poles: 2 };
  const scope = { rateHz: 20_000, seconds: 1, volts: 12, noiseAmps: 0.01 };
  const rpmOfTurns = ({ turns, rateHz }: { turns: Float64Array; rateHz: number }): number =>
    (((turns.at(-1) ?? 0) - (turns[0] ?? 0)) * 60 * rateHz) / (turns.length - 1);

  test("a healthy one is even, at the shaft's true speed", () => {
    const trace = simulatedRecording(motor, scope);
    const humps = readRipple(trace, { bars: 12 });
    expect(humps.verdict).toBe("even");
    expect(Math.abs((humps.rpm ?? 0) / rpmOfTurns(trace) - 1)).toBeLessThan(0.002);
  });

  test("a bar with a burnt contact is found, chopped or not", () => {
    for (const chopping of [undefined, { hz: 15_000, duty: 0.8 }]) {
      const trace = simulatedRecording(
        { ...motor, badBars: [{ bar: 3, ohms: 0.3 }] },
        { ...scope, rateHz: 80_000, ...(chopping ? { chopping } : {}) },
      );
      const humps = readRipple(trace, { bars: 12 });
      expect(humps.verdict).toBe("missing");
      expect(humps.badBars).toBe(1);
      expect(Math.abs((humps.rpm ?? 0) / rpmOfTurns(trace) - 1)).toBeLessThan(0.005);
      if (chopping) expect(humps.chopping?.hz).toBeCloseTo(15_000, -1);
    }
  });

  test.each([
    [[{ bar: 3, ohms: 0.155 }]],
    [[{ bar: 14, ohms: 0.086 }]],
    [
      [
        { bar: 11, ohms: 0.22 },
        { bar: 4, ohms: 0.2 },
      ],
    ],
    [
      [
        { bar: 6, ohms: 0.27 },
        { bar: 7, ohms: 0.13 },
        { bar: 12, ohms: 0.3 },
      ],
    ],
  ])("with nothing given, 16 bars of which %j are bad are not read as eight", (badBars) => {
    for (const volts of [7, 11]) {
      const trace = simulatedRecording(
        { ...motor, bars: 16, badBars },
        { ...scope, volts, jitterShare: 0.01 },
      );
      const humps = readRipple(trace);
      expect([humps.rpm, humps.bars]).toEqual([null, null]);
      expect(humps.cannot.map(({ code }) => code).join()).toMatch(/no-mark|repeats-/);
    }
  });

  test.each([
    [8, 9, [6, 5, 1]],
    [8, 6, [6, 4, 3]],
    [10, 9, [8, 1, 9]],
    [12, 12, [2, 4]],
    [16, 6, [3, 12, 0]],
    [24, 9, [17, 19]],
  ])(
    "%p bars at %p V, %p of them bad: their effect over half a turn is not taken for a ripple",
    (bars, volts, bad) => {
      // Only the bars are given. Read as a slower motor with even ripples, all of them would be called sound.
      const badBars = bad.map((bar, i) => ({ bar, ohms: 0.12 + 0.08 * i }));
      const trace = simulatedRecording({ ...motor, bars, badBars }, { ...scope, volts, jitterShare: 0.01 });
      const humps = readRipple(trace, { bars });
      expect(humps.rpm).not.toBeNull();
      expect(Math.abs((humps.rpm ?? 0) / rpmOfTurns(trace) - 1)).toBeLessThan(0.005);
      expect(["uneven", "missing"]).toContain(humps.verdict);
    },
  );

  test.each([0.15, 0.3])(
    "a variation of %p A once per turn determines eight bars, one of them bad",
    (amps) => {
      const trace = simulatedRecording(
        { ...motor, bars: 8, badBars: [{ bar: 7, ohms: 0.29 }] },
        { ...scope, volts: 7, jitterShare: 0.01 },
      );
      trace.amps.forEach((value, i) => {
        trace.amps[i] = value + amps * Math.cos(2 * Math.PI * (trace.turns[i] as number));
      });
      const humps = readRipple(trace);
      expect(humps.bars).toBe(8);
      expect(Math.abs((humps.rpm ?? 0) / rpmOfTurns(trace) - 1)).toBeLessThan(0.005);
      expect(humps.badBars).toBe(1);
    },
  );

  test("a slow motor under PWM with eight bars, one bad, whose ripples do not stand out, is read correctly or not at all", () => {
    let right = 0;
    for (const [ratedAmps, duty, ohms] of [
      [14, 0.4, 0.25],
      [18, 0.4, 0.3],
      [18, 0.45, 0.25],
    ] as const) {
      const trace = simulatedRecording(
        {
          constants: motorConstants({
            id: "M1",
            kind: "motor",
            ratedVolts: 13.5,
            ratedAmps,
            stallAmps: 70,
            ratedRpm: 3000,
          }),
          bars: 8,
          poles: 2,
          badBars: [{ bar: 3, ohms }],
        },
        {
          rateHz: 80_000,
          seconds: 1.4,
          volts: 5.5,
          noiseAmps: 0.06,
          driftShare: 0.02,
          jitterShare: 0.01,
          seed: 5,
          chopping: { hz: 12_121, duty },
        },
      );
      const { rpm } = readRipple(trace, { bars: 8 });
      if (rpm === null) continue;
      expect(Math.abs(rpm / rpmOfTurns(trace) - 1)).toBeLessThan(0.005);
      right += 1;
    }
    expect(right).toBeGreaterThan(1);
  });

  test("from rest the inrush comes near the stall current, and the ripples are read after it has settled", () => {
    const humps = readRipple(simulatedRecording(motor, { ...scope, seconds: 4, fromRest: true }), {
      bars: 12,
    });
    // Stall current at 12 V: volts over the winding's ohms; the shaft turns a little before the current reaches it.
    expect(humps.startUp?.inrushAmps).toBeGreaterThan((0.85 * 12) / constants.ohms);
    expect(humps.startUp?.inrushAmps).toBeLessThan((1.02 * 12) / constants.ohms);
    expect(humps.startUp?.settleSeconds).toBeGreaterThan(0.1);
    expect(humps.verdict).toBe("even");
    expect(humps.meanAmps).toBeLessThan(20);
  });

  test("moments without current are counted, with their place", () => {
    const trace = simulatedRecording(motor, scope);
    for (const at of [4000, 9000, 15_000]) trace.amps.fill(0, at, at + 60);
    const { dropoutCount, dropouts } = readRipple(trace, { bars: 12 });
    expect(dropoutCount).toBe(3);
    expect(dropouts[1]?.atSeconds).toBeCloseTo(0.45, 3);
    expect(dropouts[1]?.seconds).toBeCloseTo(0.003, 3);
  });
});

describe("closed forms", () => {
  // A sine's mean is its offset and its swing twice its amplitude; a square wave's swing is its step (definitions).
  const rateHz = 20_000;
  const of = (shape: (phase: number) => number) => ({
    amps: Float32Array.from({ length: 20_000 }, (_, i) => 10 + shape((i * 580) / rateHz)),
    rateHz,
  });
  test.each<[string, (phase: number) => number, number]>([
    ["a sine", (phase) => 0.67 * Math.sin(2 * Math.PI * phase), 1.34],
    ["a square wave", (phase) => (phase % 1 < 0.5 ? 0.67 : -0.67), 1.34],
  ])("%s of 580 Hz", (_, shape, swing) => {
    const humps = readRipple(of(shape), { bars: 12 });
    expect(humps.meanAmps).toBeCloseTo(10, 2);
    expect(humps.peakToPeakAmps).toBeCloseTo(swing, 2);
    expect(humps.humpHz).toBeCloseTo(580, 0);
    expect(humps.rpm).toBeCloseTo(2900, 0);
  });
  test("a direct current has its mean and no ripples", () => {
    expect(readRipple({ amps: new Float32Array(5000).fill(7.5), rateHz }, { bars: 12 })).toMatchObject({
      meanAmps: 7.5,
      peakToPeakAmps: 0,
      humpHz: null,
    });
  });
});
