import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../chance/randomSource";
import { judgedRipple, usualHeight } from "./judgement";
import type { HumpGrid } from "./rhythm/humpGrid";
import type { RippleReason } from "./rippleReason";
import { turnCount } from "./turn/turnCount";

const points = 16;

/** A grid of half-sines with the given heights per turn, and noise. */
function grid(turns: number, heights: readonly number[], noise = 0.01): HumpGrid {
  const { normal } = randomSource(21);
  const humps = turns * heights.length;
  const values = Float32Array.from({ length: humps * points }, (_, i) => {
    const hump = Math.floor(i / points);
    const height = heights[hump % heights.length] ?? 0;
    return 10 + height * Math.sin((Math.PI * ((i % points) + 0.5)) / points) + noise * normal();
  });
  return { points, humps, first: 0, values };
}

const even = new Array<number>(12).fill(1);
const with_ = (...bad: readonly (readonly [hump: number, height: number])[]): number[] =>
  even.map((height, hump) => bad.find(([own]) => own === hump)?.[1] ?? height);
const known = { perTurn: 12, bars: 12, period: null };
const judged = (own: HumpGrid, turn: Parameters<typeof judgedRipple>[1] = known) => {
  const cannot: RippleReason[] = [];
  return { ...judgedRipple(own, turn, 2, 500, cannot), cannot };
};

describe("ripples judged over the turn", () => {
  test.each([
    [even, "even", [], 0],
    [with_([2, 0.5], [8, 0.5]), "uneven", [2, 8], 1],
    [with_([2, 0.1], [8, 0.1]), "missing", [2, 8], 1],
    [with_([2, 0.1], [3, 0.2], [8, 0.1], [9, 0.2]), "missing", [2, 3, 8, 9], 1],
    [with_([1, 0.1], [4, 0.3], [7, 0.1], [10, 0.3]), "missing", [1, 4, 7, 10], 2],
    [with_([0, 0.7], [6, 0.7]), "even", [], 0],
  ] as const)("%j is %s", (heights, verdict, badHumps, badBars) => {
    expect(judged(grid(60, heights))).toMatchObject({ verdict, badHumps, badBars, turns: 60 });
  });

  test("says which ones and by how much", () => {
    const uneven = judged(grid(60, with_([2, 0.5], [8, 0.5]))).because;
    expect(uneven).toMatchObject({ code: "bad-humps", humps: [2, 8], turns: 60 });
    if (uneven.code === "bad-humps") expect(Math.abs(uneven.leastShare - 0.5)).toBeLessThan(0.1);
    const sound = judged(grid(60, even)).because;
    expect(sound).toMatchObject({ code: "all-even", turns: 60 });
    if (sound.code === "all-even") expect(sound.leastShare).toBeGreaterThan(0.9);
  });

  test("is as certain as its turns allow: noise is averaged away or reported as too much", () => {
    const bad = with_([2, 0.3], [8, 0.3]);
    expect(judged(grid(400, bad, 0.6)).verdict).not.toBe("unclear");
    const few = judged(grid(4, bad, 1.5));
    expect(few.verdict).toBe("unclear");
    expect(few.cannot).toEqual([{ code: "noisy-over-turns" }]);
  });

  test("nearly all ripples far below the valleys' line are missing, not noise; noise alone makes none missing", () => {
    // Ten bars, two of them bad: the dips are so deep and so many that only one ripple reaches the valleys' line.
    const depth = (bar: number): number =>
      [0.5, 3.5, 5.5, 8.5].reduce((sum, at) => sum + 4 * Math.exp(-(((bar - at) / 0.6) ** 2)), 0);
    const { normal } = randomSource(4);
    const values = Float32Array.from({ length: 600 * points }, (_, i) => {
      const bar = ((i + 0.5) / points) % 10;
      return 12 - depth(bar) + 0.3 * Math.abs(Math.sin(Math.PI * bar)) + 0.05 * normal();
    });
    const { verdict, badHumps } = judged(
      { points, humps: 600, first: 0, values },
      { perTurn: 10, bars: 10, period: null },
    );
    expect(verdict).toBe("missing");
    expect(badHumps).toEqual(expect.arrayContaining([0, 3, 5, 8]));
    expect(badHumps).not.toContain(1);
    for (const noise of [2, 4, 8]) expect(judged(grid(12, even, noise)).badHumps).toEqual([]);
  });

  test("too few turns are reported with the length the recording needs, and the ripples are judged one by one", () => {
    const short = judged(grid(2, even));
    expect(short.humpAmps).toEqual([]);
    expect(short.cannot).toContainEqual({
      code: "too-few-turns",
      turns: 2,
      neededSeconds: expect.closeTo(0.096, 6),
    });
  });

  test("without a known turn a repeating bad ripple is still found, and none is numbered", () => {
    const none = { perTurn: null, bars: null, period: null };
    expect(judged(grid(60, with_([2, 0.1], [8, 0.1])), none)).toMatchObject({
      verdict: "missing",
      badHumps: [],
      badBars: null,
    });
    expect(judged(grid(60, even), none)).toMatchObject({ verdict: "even", turns: null });
    expect(judged(grid(60, even, 0.5), none).verdict).toBe("unclear");
    expect(judged(grid(60, with_([2, 0.1])), { ...none, period: 12 })).toMatchObject({
      verdict: "missing",
      humpAmps: [],
    });
  });

  test("the usual height is the median, or the good ones' if they are few", () => {
    expect(usualHeight([1, 1.1, 0.9, 1, 0.2])).toBeCloseTo(1, 6);
    expect(usualHeight([1, 1, 0.1, 0.1, 0.1, 1])).toBeCloseTo(1, 6);
    expect(usualHeight([0.7, -3, -2, -1, -0.5])).toBeCloseTo(0.7, 6);
    expect(usualHeight([])).toBe(0);
  });
});

describe("ripples per turn", () => {
  const count = (options: Parameters<typeof turnCount>[2], humpHz = 500, own = grid(60, even)) => {
    const cannot: RippleReason[] = [];
    return { ...turnCount(humpHz, { even: () => own, raw: own }, options, cannot), cannot };
  };

  test("follow from the bars, whatever the rpm says; a contradiction is reported", () => {
    expect(count({ bars: 11 })).toMatchObject({ perTurn: 22, bars: 11, cannot: [] });
    expect(count({ bars: 12, rpm: 2500 })).toMatchObject({ perTurn: 12, cannot: [] });
    expect(count({ bars: 12, rpm: 1800 }).cannot).toEqual([
      { code: "bars-contradict-rpm", bars: 12, rpm: 2500, givenRpm: 1800 },
    ]);
  });

  test("follow from the rpm if a commutator can have that number", () => {
    expect(count({ rpm: 2520 })).toMatchObject({ perTurn: 12, bars: 12 });
    expect(count({ rpm: 2520, poles: 4 })).toMatchObject({ perTurn: 12, bars: 12 });
    expect(count({ rpm: 1364 })).toMatchObject({ perTurn: 22, bars: null });
    expect(count({ rpm: 6000 })).toMatchObject({ perTurn: null, bars: null });
    expect(count({ rpm: 6000 }).cannot).toEqual([{ code: "no-such-commutator", humpsPerTurn: 5, poles: 2 }]);
  });

  test("do not follow from an even current, nor from one bad bar", () => {
    expect(count({})).toMatchObject({ perTurn: null, period: null });
    const dip = count({}, 500, grid(300, with_([2, 0.1], [8, 0.1])));
    expect(dip).toMatchObject({ perTurn: null, period: 6 });
    expect(dip.cannot).toEqual([{ code: "repeats-not-by-turn", humps: 6 }]);
  });
});
