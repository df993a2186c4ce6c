import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../chance/randomSource";
import { type SimulatedMotor, simulatedRecording } from "../instrument/windingModel";
import { blowerConstants as constants } from "../testing/blowerMotor";
import { readRipple } from "./readRipple";
import type { HumpGrid } from "./rhythm/humpGrid";
import { rhythmDoubt } from "./rhythmDoubt";

const points = 24;
const perTurn = 12;

interface Made {
  /** Depth of each bar's dip, over half a turn of six bars. */
  readonly dips?: readonly number[];
  /** How many times faster the rhythm is than the grid assumes. */
  readonly times?: number;
  readonly noise?: number;
  /** Amplitude of a variation once per turn. */
  readonly wander?: number;
  readonly level?: number;
}

/** Ripples of twelve bars on the grid of some rhythm. */
function grid({ dips = [], times = 1, noise = 0.02, wander = 0, level = 8 }: Made): HumpGrid {
  const { normal } = randomSource(3);
  const humps = 480;
  const values = Float32Array.from({ length: humps * points }, (_, i) => {
    const hump = (i + 0.5) / points / times;
    const bar = hump % 6;
    const dip = dips.reduce((sum, depth, at) => sum - depth * Math.exp(-(((bar - at - 0.5) / 0.4) ** 2)), 0);
    const turned = wander * Math.cos((2 * Math.PI * hump) / perTurn);
    return level + dip + 0.2 * Math.abs(Math.sin(Math.PI * bar)) + turned + noise * normal();
  });
  return { points, values, humps, first: 0 };
}
const known = { perTurn, poles: 2, most: 5, chopped: false };
const doubt = (made: Made, most = 5) => rhythmDoubt(grid(made), { ...known, most });

describe("a rhythm whose ripples per turn are known is trusted", () => {
  test.each([
    ["sound humps", {}],
    ["a bad bar", { dips: [0, 1] }],
    ["four bad bars", { dips: [0, 1, 0.6, 0, 0.3, 0.8] }],
    ["a bad bar and a wheel out of balance", { dips: [0, 1], wander: 0.3 }],
    ["a bad bar in noise", { dips: [0, 1], noise: 0.08 }],
    ["sound humps in noise three times their swing", { noise: 0.2, level: 20 }],
    ["humps taken without their mean", { dips: [0, 1], level: 0 }],
  ])("%s", (_, made) => expect(doubt(made)).toBeNull());
});

describe("a rhythm is doubted", () => {
  const opposite = { dips: [0, 1, 0, 0, 0.8, 0], times: 2 };

  test("if bad bars opposite each other may have made it twice too fast", () =>
    expect(doubt(opposite)).toEqual({ kind: "slower", times: 2 }));

  test("or three times, with bad bars a third of the way apart", () =>
    expect(doubt({ dips: [1, 0, 0.8, 0, 0.9, 0], times: 3 })).toEqual({ kind: "slower", times: 3 }));

  test("not if the ripples can be no slower", () => expect(doubt(opposite, 1.5)).toBeNull());

  test.each([0.75, 4 / 3, 1.2])("if it is wrong: %p times the right one", (times) =>
    expect(doubt({ dips: [0, 1, 0.6, 0, 0.3, 0], times })).toEqual({ kind: "no-turns" }),
  );

  test("if a module's PWM clock made it, although it is an order of the turn", () => {
    const sound = grid({});
    const values = sound.values.map((_, i) => {
      const hump = (i + 0.5) / points;
      return 8 + 0.2 * Math.sin(2 * Math.PI * hump) + 0.3 * Math.abs(Math.sin((Math.PI * hump) / 1.75));
    });
    const made = { ...sound, values };
    expect(rhythmDoubt(made, known)).toEqual({ kind: "no-turns" });
    expect(rhythmDoubt(made, { ...known, chopped: true })).toBeNull();
  });

  test("if its ripples are taller than a sound commutator's", () =>
    expect(doubt({ dips: [1, 1, 1, 1, 1, 1], level: 1.1 })).toEqual({ kind: "too-tall" }));
});

describe("several bad bars, with only the number of bars given", () => {
  const read = (motor: Partial<SimulatedMotor>, given: { readonly aboutRpm?: number } = {}) => {
    const trace = simulatedRecording(
      { constants, bars: 12, poles: 2, ...motor },
      { rateHz: 20_000, seconds: 1.2, volts: 9, noiseAmps: 0.03, jitterShare: 0.01 },
    );
    const humps = readRipple(trace, { bars: 12, ...given });
    // The speed settles at first, so the true value is taken over the ripples' stretch.
    const [from, to] = humps.steadySeconds.map((at) =>
      Math.min(trace.turns.length - 1, Math.round(at * trace.rateHz)),
    ) as [number, number];
    const turned = (trace.turns[to] as number) - (trace.turns[from] as number);
    return { humps, rpm: (60 * turned * trace.rateHz) / (to - from) };
  };
  const opposite = [
    { bar: 10, ohms: 0.22 },
    { bar: 7, ohms: 0.18 },
  ];

  test("opposite each other they leave two speeds, and both are named; the approximate speed decides", () => {
    const { humps, rpm } = read({ badBars: opposite });
    expect(humps.rpm).toBeNull();
    const named = humps.cannot.flatMap((own) => (own.code === "one-of-two-speeds" ? own.rpm : []));
    expect(named.some((own) => Math.abs(own / rpm - 1) < 0.005)).toBe(true);
    const settled = read({ badBars: opposite }, { aboutRpm: 1.1 * rpm });
    expect(Math.abs((settled.humps.rpm ?? 0) / rpm - 1)).toBeLessThan(0.005);
    expect(settled.humps.verdict).toBe("missing");
  });

  test("a bad bar on an unbalanced wheel leaves one", () => {
    const { humps, rpm } = read({ badBars: [{ bar: 3, ohms: 0.2 }], wanderShare: 0.4 });
    expect(Math.abs((humps.rpm ?? 0) / rpm - 1)).toBeLessThan(0.005);
    expect(humps).toMatchObject({ verdict: "missing", badBars: 1 });
  });

  test("with most bars of half a turn bad it is not a sound motor at a fraction of the speed", () => {
    const badBars = [1, 2, 3, 4].map((bar, i) => ({ bar, ohms: 0.1 + 0.08 * i }));
    const { humps, rpm } = read({ badBars });
    expect(humps.verdict).not.toBe("even");
    if (humps.rpm !== null) expect(Math.abs(humps.rpm / rpm - 1)).toBeLessThan(0.005);
  });
});
