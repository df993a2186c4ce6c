// Traces made here from the definition: a hump is a half-sine; bars, poles, speed and heights are known. Humps per
// turn are the least common multiple of bars and poles: 12 and 2 give 12, 11 and 2 give 22 (stated in the trade; arithmetic).
import { describe, expect, test } from "@jest/globals";
import { type CurrentTrace, humpsPerTurn, readHumps } from "./humps";

interface Made {
  readonly bars: number;
  readonly poles?: number;
  readonly rpm: number;
  readonly seconds: number;
  readonly rateHz: number;
  /** Height of each hump of a turn, as a share of the usual. */
  readonly heights?: (hump: number) => number;
  readonly noise?: number;
}

function traceOf({
  bars,
  poles = 2,
  rpm,
  seconds,
  rateHz,
  heights = () => 1,
  noise = 0.01,
}: Made): CurrentTrace {
  const perTurn = humpsPerTurn(bars, poles);
  let state = 1;
  const random = (): number => {
    state = (state * 16807) % 2147483647;
    return state / 2147483647 - 0.5;
  };
  const amps = Float64Array.from({ length: Math.round(seconds * rateHz) }, (_, i) => {
    const phase = ((i / rateHz) * rpm * perTurn) / 60;
    const hump = Math.floor(phase) % perTurn;
    return 15 + 1.3 * heights(hump) * Math.sin(Math.PI * (phase % 1)) + noise * random();
  });
  return { amps, rateHz };
}

test.each([
  [12, 2, 12],
  [11, 2, 22],
  [14, 4, 28],
  [16, 2, 16],
])("%p bars and %p poles give %p humps a turn", (bars, poles, humps) =>
  expect(humpsPerTurn(bars, poles)).toBe(humps),
);

describe("a motor's humps", () => {
  test.each([
    { bars: 12, rpm: 2900 },
    { bars: 11, rpm: 3100 },
    { bars: 16, rpm: 1450 },
  ])(
    "$bars bars at $rpm rpm are even, and the speed comes out within a part in a thousand",
    ({ bars, rpm }) => {
      const humps = readHumps(traceOf({ bars, rpm, seconds: 1, rateHz: 20_000 }), { bars });
      expect(humps.verdict).toBe("even");
      expect(Math.abs((humps.rpm ?? 0) / rpm - 1)).toBeLessThan(0.001);
      expect(humps.humpAmps).toHaveLength(humpsPerTurn(bars, 2));
      for (const height of humps.humpAmps) expect(Math.abs(height - 1.3)).toBeLessThan(0.1);
      expect(humps.cannot).toEqual([]);
      expect(humps.meanAmps).toBeCloseTo(15 + (1.3 * 2) / Math.PI, 1);
    },
  );

  test("one bad bar of twelve passes both brushes: two humps of the turn are bad, and the rpm stays", () => {
    const bad = (hump: number): number => (hump % 6 === 2 ? 0.1 : 1);
    const humps = readHumps(traceOf({ bars: 12, rpm: 2900, seconds: 1, rateHz: 20_000, heights: bad }), {
      bars: 12,
    });
    expect(humps.verdict).toBe("missing");
    expect(humps.badHumps).toHaveLength(2);
    expect(((humps.badHumps[1] ?? 0) - (humps.badHumps[0] ?? 0)) % 6).toBe(0);
    expect(Math.abs((humps.rpm ?? 0) / 2900 - 1)).toBeLessThan(0.001);
  });

  test("a worn bar is uneven, not missing", () => {
    const worn = (hump: number): number => (hump === 4 ? 0.45 : 1);
    const humps = readHumps(traceOf({ bars: 12, rpm: 2400, seconds: 1, rateHz: 20_000, heights: worn }), {
      bars: 12,
    });
    expect(humps.verdict).toBe("uneven");
    expect(humps.badHumps).toHaveLength(1);
  });

  test("what cannot be told is null, with its reason", () => {
    const made = { bars: 12, rpm: 2900, seconds: 1, rateHz: 20_000 };
    const noBars = readHumps(traceOf(made));
    expect(noBars).toMatchObject({ rpm: null, humpsPerTurn: null, bars: null, verdict: "even" });
    expect(noBars.humpHz).toBeCloseTo((2900 * 12) / 60, 0);
    expect(noBars.cannot.join()).toMatch(/bars not given/);
    const slow = readHumps(traceOf({ ...made, rateHz: 2000 }), { bars: 12 });
    expect(slow).toMatchObject({ verdict: "unclear", humpAmps: [] });
    expect(slow.cannot.join()).toMatch(
      /sampled too slowly for heights: 2000 Hz, at least 46\d\d Hz are needed/,
    );
    const short = readHumps(traceOf({ ...made, seconds: 0.045 }), { bars: 12 });
    expect(short.cannot.join()).toMatch(/too short for hump by hump/);
    const flat = readHumps({ amps: new Float64Array(4000).fill(12), rateHz: 10_000 }, { bars: 12 });
    expect(flat).toMatchObject({ verdict: "unclear", humpHz: null });
    expect(readHumps({ amps: new Float64Array(3), rateHz: 10_000 }).cannot.join()).toMatch(
      /too short: 3 samples/,
    );
    const trace = traceOf({ ...made, noise: 0 });
    const clipped = readHumps(
      { ...trace, amps: trace.amps.map((value) => Math.min(16, value)) },
      { bars: 12 },
    );
    expect(clipped.cannot.join()).toMatch(/clipped/);
  });
});
