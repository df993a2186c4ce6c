// The winding model against what holds for any commutator: the steady torque balance, the energy balance, the number
// of ripples, and the time constants of its inrush.
import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../chance/randomSource";
import { humpsPerTurn } from "../motor/commutator";
import { steadySpeed } from "../motor/motorConstants";
import { runningPart } from "../ripple/startUp";
import { meanOf } from "../signal/currentRecording";
import { blowerConstants as constants } from "../testing/blowerMotor";
import { simulatedRecording } from "./windingModel";

const motor = { constants, bars: 12, poles: 2 };
const scope = { rateHz: 20_000, seconds: 2, volts: 12 };

/** Radians a second over the last part of a recording. */
function omegaOf({ turns, rateHz }: { turns: Float64Array; rateHz: number }): number {
  const half = turns.length >> 1;
  return (2 * Math.PI * rateHz * ((turns.at(-1) ?? 0) - (turns[half] ?? 0))) / (turns.length - 1 - half);
}

describe("the current of a winding", () => {
  test.each([5, 9, 13.5])(
    "at %p V turns and draws as the steady motor does, its ripple taken off the back-EMF",
    (volts) => {
      const trace = simulatedRecording(motor, { ...scope, volts });
      const speed = steadySpeed(constants, volts);
      // The ripple lowers the mean back-EMF by a third of its 3.4 %, so it turns a little faster.
      expect(omegaOf(trace) / speed).toBeGreaterThan(1);
      expect(omegaOf(trace) / speed).toBeLessThan(1.02);
      const amps = meanOf(trace.amps.subarray(20_000));
      const torque = constants.friction + constants.fan * omegaOf(trace) ** 2;
      expect(amps).toBeCloseTo(torque / constants.k, 1);
    },
  );

  test("the energy in equals heat plus mechanical work", () => {
    const trace = simulatedRecording(motor, scope);
    const late = trace.amps.subarray(20_000);
    const squares = meanOf(late.map((amps) => amps * amps));
    const torque = constants.friction + constants.fan * omegaOf(trace) ** 2;
    expect(scope.volts * meanOf(late)).toBeCloseTo(squares * constants.ohms + torque * omegaOf(trace), -1);
  });

  test("has as many ripples per turn as the bars and poles give", () => {
    for (const [bars, poles] of [
      [12, 2],
      [11, 2],
      [10, 4],
    ] as const) {
      const { amps, turns } = simulatedRecording(
        { ...motor, bars, poles },
        { ...scope, seconds: 1, rateHz: 40_000 },
      );
      let humps = 0;
      for (let i = 20_001; i < amps.length - 1; i++)
        if ((amps[i] as number) > (amps[i - 1] as number) && (amps[i] as number) >= (amps[i + 1] as number))
          humps += 1;
      const passed = (turns.at(-1) ?? 0) - (turns[20_000] ?? 0);
      expect(humps / passed / humpsPerTurn(bars, poles)).toBeCloseTo(1, 1);
    }
  });

  test("a bad bar takes current while it is under a brush, twice a turn", () => {
    const healthy = simulatedRecording(motor, scope);
    const burnt = simulatedRecording({ ...motor, badBars: [{ bar: 4, ohms: 0.3 }] }, scope);
    expect(meanOf(burnt.amps.subarray(20_000))).toBeLessThan(meanOf(healthy.amps.subarray(20_000)));
    const limit = 0.8 * meanOf(healthy.amps.subarray(20_000));
    let dips = 0;
    for (let i = 20_001; i < burnt.amps.length; i++)
      if ((burnt.amps[i] as number) < limit && (burnt.amps[i - 1] as number) >= limit) dips += 1;
    expect(dips / ((burnt.turns.at(-1) ?? 0) - (burnt.turns[20_000] ?? 0))).toBeCloseTo(2, 1);
  });

  test("the same seed gives the same recording, another seed another", () => {
    const noisy = { ...scope, seconds: 0.1, noiseAmps: 0.1 };
    expect(simulatedRecording(motor, { ...noisy, seed: 4 }).amps).toEqual(
      simulatedRecording(motor, { ...noisy, seed: 4 }).amps,
    );
    expect(simulatedRecording(motor, { ...noisy, seed: 5 }).amps).not.toEqual(
      simulatedRecording(motor, { ...noisy, seed: 4 }).amps,
    );
    const { uniform, normal } = randomSource(1);
    const many = Float64Array.from({ length: 20_000 }, uniform);
    expect(meanOf(many)).toBeCloseTo(0.5, 1);
    const spread = Float64Array.from({ length: 20_000 }, normal);
    expect(meanOf(spread.map((value) => value * value))).toBeCloseTo(1, 1);
  });
});

describe("the running part of a recording", () => {
  test("starts once the inrush has settled, and ends when the motor is switched off", () => {
    const started = simulatedRecording(motor, { ...scope, seconds: 4, fromRest: true });
    const { steady, startUp } = runningPart(started);
    expect(startUp?.atSeconds).toBeLessThan(0.02);
    expect(startUp?.inrushAmps).toBeGreaterThan(50);
    expect(steady.from / scope.rateHz).toBeGreaterThan(0.2);
    expect(steady.to).toBe(started.amps.length);
    const stopped = started.amps.slice();
    stopped.fill(0, 3 * scope.rateHz);
    expect(runningPart({ ...started, amps: stopped }).steady.to / scope.rateHz).toBeCloseTo(3, 1);
  });

  test("is the whole recording if it runs throughout, and if there is no current at all", () => {
    const trace = simulatedRecording(motor, scope);
    const count = trace.amps.length;
    expect(runningPart(trace)).toEqual({
      steady: { from: 0, to: count },
      startUp: null,
      dropouts: [],
      dropoutCount: 0,
    });
    const dead = { amps: new Float32Array(20_000), rateHz: 20_000 };
    expect(runningPart(dead)).toMatchObject({
      steady: { from: 0, to: 20_000 },
      startUp: null,
      dropoutCount: 0,
    });
  });

  test("a dead spot while it runs is a moment without current", () => {
    const trace = simulatedRecording(motor, scope);
    trace.amps.fill(0.1, 12_000, 12_400);
    const { dropouts, dropoutCount } = runningPart(trace);
    expect(dropoutCount).toBe(1);
    expect(dropouts[0]?.atSeconds).toBeCloseTo(0.6, 3);
    expect(dropouts[0]?.seconds).toBeCloseTo(0.02, 3);
  });
});
