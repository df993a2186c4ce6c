import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../../chance/randomSource";
import { ridgesOf } from "./driftingRidge";

const rateHz = 40_000;
const count = 2 ** 16;

interface Drawn {
  /** Amplitude of a clock at 930.5 Hz. */
  readonly clock: number;
  /** Start and end frequency of a rhythm, in hertz. */
  readonly drifts?: readonly [number, number];
  readonly noise?: number;
}

function drawn({ clock, drifts, noise = 0.05 }: Drawn): Float32Array {
  const { normal } = randomSource(8);
  let turns = 0;
  return Float32Array.from({ length: count }, (_, i) => {
    const [first, last] = drifts ?? [0, 0];
    turns += (first + ((last - first) * i) / count) / rateHz;
    const own = drifts ? 0.4 * Math.sin(2 * Math.PI * turns) : 0;
    return 12 + clock * Math.sin((2 * Math.PI * 930.5 * i) / rateHz) + own + noise * normal();
  });
}

const ridges = (made: Drawn) => ridgesOf(drawn(made), rateHz, 0, count);
const found = (made: Drawn): number[] => ridges(made).map(({ hz }) => hz);

describe("a rhythm that drifts", () => {
  test.each<[number, number]>([
    [2300, 2450],
    [2450, 2300],
    [580, 620],
    [3500, 3500],
  ])(
    "from %p to %p Hz is followed beside a clock three times as tall; its mean is the middle",
    (first, last) => {
      const hz = found({ clock: 1.2, drifts: [first, last] });
      const middle = (first + last) / 2;
      expect(hz.some((own) => Math.abs(own / middle - 1) < 0.005)).toBe(true);
      expect(hz.some((own) => Math.abs(own - 930.5) < 3)).toBe(true);
      expect(hz).toHaveLength(2);
    },
  );

  test("its drift is found to a bin or two; a clock does not drift", () => {
    const [clock, motor] = [...ridges({ clock: 1.2, drifts: [2300, 2450] })].sort((a, b) => a.hz - b.hz);
    expect(Math.abs((motor?.driftHz ?? 0) - 150)).toBeLessThan(25);
    expect(clock?.driftHz).toBeLessThan(1);
  });

  test("in noise a clock is the only one", () => {
    expect(found({ clock: 1, noise: 0.3 })).toHaveLength(1);
  });

  test("in noise alone there is none", () => {
    expect(found({ clock: 0, noise: 0.3 })).toEqual([]);
  });
});
