import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../../chance/randomSource";
import { drawnRecording } from "../../testing/rippleRecording";
import { withoutDips } from "../dips";
import { foldConsistency, foldedTurn, isOneHump } from "../turn/foldedTurn";
import { humpGrid } from "./humpGrid";
import { humpPhase } from "./humpPhase";
import { humpRhythm } from "./humpRhythm";

const made = { bars: 12, rpm: 2400, seconds: 2, rateHz: 20_000, noise: 0.02 };
const band = { lowHz: 60, highHz: 3000 };
const wholeOf = ({ amps }: { readonly amps: Float32Array }) => ({ from: 0, to: amps.length });

describe("the ripple's rhythm", () => {
  test("follows a speed that drifts by a fifth", () => {
    const trace = drawnRecording({ ...made, drift: 0.2 });
    const rhythm = humpRhythm(trace, wholeOf(trace), band);
    // 480 ripples per second in the middle, a tenth fewer at the start, a tenth more at the end.
    expect(rhythm?.hz[0]).toBeGreaterThan(430);
    expect(rhythm?.hz[0]).toBeLessThan(445);
    expect(rhythm?.hz.at(-1)).toBeGreaterThan(515);
    expect(rhythm?.hz.at(-1)).toBeLessThan(530);
  });

  test("a variation once per turn taller than the ripples does not mislead it", () => {
    const trace = drawnRecording({ ...made, mark: 1.5 });
    for (const hz of humpRhythm(trace, wholeOf(trace), band)?.hz ?? []) expect(hz).toBeCloseTo(480, -1);
  });

  test("there is none in noise, nor in a recording of a few samples", () => {
    const { normal } = randomSource(5);
    const amps = Float32Array.from({ length: 20_000 }, () => 10 + normal());
    expect(humpRhythm({ amps, rateHz: 20_000 }, { from: 0, to: 20_000 }, band)).toBeNull();
    expect(humpRhythm({ amps, rateHz: 20_000 }, { from: 0, to: 20 }, band)).toBeNull();
  });
});

describe("the ripple's phase", () => {
  const followed = (drift: number) => {
    const trace = drawnRecording({ ...made, drift });
    const rhythm = humpRhythm(trace, wholeOf(trace), band);
    if (!rhythm) throw new Error("no rhythm");
    return { trace, phase: humpPhase(trace, wholeOf(trace), rhythm, 12) };
  };

  test.each([0, 0.05, 0.15])("counts every ripple over a drift of %p", (drift) => {
    const { phase } = followed(drift);
    const passed = (phase.humps.at(-1) ?? 0) - (phase.humps[0] ?? 0);
    // 480 per second over the time between the first and the last block.
    const seconds = ((phase.humps.length - 1) * phase.block) / made.rateHz;
    expect(Math.abs(passed / (480 * seconds) - 1)).toBeLessThan(0.002);
    for (let i = 1; i < phase.humps.length; i++)
      expect(phase.humps[i]).toBeGreaterThan(phase.humps[i - 1] as number);
  });

  test("samples the recording on a grid with every ripple's top in the middle", () => {
    const { trace, phase } = followed(0.1);
    const grid = humpGrid(trace.amps, phase, 16);
    expect(grid.humps).toBeGreaterThan(950);
    let off = 0;
    for (let hump = 0; hump < grid.humps; hump++) {
      const own = [...grid.values.subarray(hump * 16, hump * 16 + 16)];
      if (Math.abs(own.indexOf(Math.max(...own)) - 7.5) > 3) off += 1;
    }
    expect(off).toBeLessThan(0.01 * grid.humps);
    expect(humpGrid(trace.amps, phase, 16, 100).humps).toBe(100);
    expect(isOneHump(grid.values, 16)).toBe(true);
  });

  test("turns repeat each other with the right number of ripples, and noise with none", () => {
    const heights = (hump: number): number => 1 - 0.08 * (hump % 6);
    const trace = drawnRecording({ ...made, heights });
    const rhythm = humpRhythm(trace, wholeOf(trace), band);
    if (!rhythm) throw new Error("no rhythm");
    const grid = humpGrid(trace.amps, humpPhase(trace, wholeOf(trace), rhythm, 12), 16);
    expect(foldConsistency(grid, 12)).toBeGreaterThan(0.97);
    const { normal } = randomSource(9);
    const values = Float32Array.from({ length: 16 * 960 }, () => normal());
    expect(foldConsistency({ points: 16, humps: 960, first: 0, values }, 12)).toBeLessThan(0.02);
    // Each height is found within its error; the tallest comes first or last, depending on where the turn begins.
    const { humpAmps, errorAmps } = foldedTurn(grid, 12);
    const sorted = [...humpAmps].sort((a, b) => b - a);
    expect((sorted[0] ?? 0) / (sorted.at(-1) ?? 1)).toBeCloseTo(1 / 0.6, 0);
    expect(Math.max(...errorAmps)).toBeLessThan(0.02);
  });

  test("a grid ripple that holds two is recognised", () => {
    const shape = (bumps: number) =>
      Float32Array.from({ length: 24 * 200 }, (_, i) =>
        Math.abs(Math.sin((Math.PI * bumps * (i % 24)) / 24)),
      );
    expect(isOneHump(shape(1), 24)).toBe(true);
    expect(isOneHump(shape(2), 24)).toBe(false);
    expect(isOneHump(shape(3), 24)).toBe(false);
  });
});

describe("dips removed", () => {
  test("a healthy recording stays the same, even with a variation and noise", () => {
    const trace = drawnRecording({ ...made, mark: 0.4 });
    expect(withoutDips(trace.amps, trace.rateHz, wholeOf(trace))).toEqual(trace.amps);
    const square = Float32Array.from({ length: 4000 }, (_, i) => (i % 40 < 20 ? 1 : 0));
    expect(withoutDips(square, 20_000, { from: 0, to: 4000 })).toEqual(square);
  });

  test("a bar that takes ten times a ripple's height is removed, with the current's recovery after it", () => {
    const trace = drawnRecording({ ...made, noise: 0 });
    const dipped = trace.amps.slice();
    for (let at = 200; at + 60 < dipped.length; at += 500)
      for (let i = 0; i < 60; i++) dipped[at + i] = (trace.amps[at + i] as number) - 10 * Math.exp(-i / 12);
    const even = withoutDips(dipped, trace.rateHz, wholeOf(trace));
    expect(Math.min(...dipped)).toBeLessThan(7);
    expect(Math.min(...even)).toBeGreaterThan(14.4);
  });
});
