import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../../chance/randomSource";
import { possibleHumps } from "../../motor/commutator";
import { turnLine } from "./turnLine";
import { turnMark } from "./turnMark";

const possible = possibleHumps(2);
/** Mean currents of successive ripples from the level of each ripple of a turn, with a little noise. */
function levels(count: number, of: (hump: number) => number, noise = 0.005): Float64Array {
  const { normal } = randomSource(11);
  return Float64Array.from({ length: count }, (_, hump) => 10 + of(hump) + noise * normal());
}
const marked = (own: Float64Array, raw = own) => turnMark(own, raw, possible, 2, 0.001);
const swing = (perTurn: number) => (hump: number) => 0.1 * Math.cos((2 * Math.PI * hump) / perTurn + 0.4);

describe("a mark once per turn", () => {
  test.each([8, 10, 12, 16, 22, 24, 30, 46])("a variation over %p ripples is found", (perTurn) => {
    expect(marked(levels(4000, swing(perTurn)))).toEqual({ kind: "once-a-turn", humps: perTurn });
  });

  test("sixteen turns of 46 ripples separate them from 45 and 47 if the variation is far above the noise, and not otherwise", () => {
    expect(marked(levels(744, swing(46)))).toEqual({ kind: "once-a-turn", humps: 46 });
    expect(marked(levels(744, (hump) => 0.1 * swing(46)(hump), 0.03)).kind).toBe("none");
    expect(marked(levels(744, swing(45))).kind).toBe("pattern");
  });

  test.each([
    { humps: 382, perTurn: 10, changes: 3.5 },
    { humps: 2000, perTurn: 10, changes: 12 },
    { humps: 2400, perTurn: 38, changes: 11.4 },
  ])(
    "a variation over $perTurn of $humps ripples that changes $changes times along the recording makes sidebands, which are not lines of their own",
    ({ humps, perTurn, changes }) => {
      const grows = (hump: number): number =>
        (1 + 0.4 * Math.cos((2 * Math.PI * changes * hump) / humps)) * swing(perTurn)(hump);
      expect(marked(levels(humps, grows, 0.002))).toEqual({ kind: "once-a-turn", humps: perTurn });
    },
  );

  test("a line beside the variation on one side only is not a change along the recording", () => {
    const beside = (hump: number): number => swing(10)(hump) + 0.3 * swing(10.8)(hump);
    expect(marked(levels(2000, beside)).kind).not.toBe("once-a-turn");
  });

  test("a spike once per turn is found, since a bad bar only lowers the current", () => {
    expect(marked(levels(3000, (hump) => (hump % 14 === 3 ? 0.3 : 0)))).toMatchObject({
      kind: "once-a-turn",
      humps: 14,
    });
  });

  test("unequal bars repeat, but need not be once per turn", () => {
    const { uniform } = randomSource(2);
    const bars = Array.from({ length: 10 }, () => 0.05 * uniform());
    expect(marked(levels(3000, (hump) => bars[hump % 10] ?? 0)).kind).toBe("pattern");
    expect(marked(levels(3000, (hump) => (hump % 12 === 5 ? -0.4 : 0)))).toMatchObject({
      kind: "pattern",
      humps: 12,
    });
  });

  test("a variation beside a bar that dips at both brushes is a turn", () => {
    const dip = (hump: number): number => (hump % 8 === 2 ? -0.4 : 0);
    const raw = levels(4000, (hump) => swing(16)(hump) + dip(hump));
    const even = levels(4000, (hump) => swing(16)(hump) + 0.1 * dip(hump));
    expect(marked(even, raw)).toEqual({ kind: "once-a-turn", humps: 16 });
  });

  test.each([2, 3])("bad bars %p ripples wide, half a turn of 16 bars, are not a turn of eight", (wide) => {
    const dips = [0, -0.01, -1.99, wide === 2 ? -0.05 : -1.4, 0.02, 0.02, 0.01, -2.08];
    const raw = levels(4000, (hump) => dips[(hump + 4) % 8] ?? 0);
    // With the dips removed, what is left of them is nearly a sine.
    const even = levels(4000, (hump) => -0.1 * Math.max(0, Math.cos((2 * Math.PI * hump) / 8)) ** 1.2);
    expect(marked(even, raw)).toMatchObject({ kind: "pattern", humps: 8 });
  });

  test("a variation is found beside a bad bar that pulls half the ripples of eight bars down", () => {
    const turn = [-2.11, -1.9, 0.23, 0.39, -1.58, -1.55, 0.2, 0];
    const raw = levels(4000, (hump) => turn[hump % 8] ?? 0);
    const even = levels(4000, (hump) => Math.max(-0.25, turn[hump % 8] ?? 0));
    expect(marked(even, raw)).toEqual({ kind: "once-a-turn", humps: 8 });
  });

  test("unequal bars may vary a little over half a turn of 20; no commutator has half a turn of 14 ripples", () => {
    const little = (perTurn: number) => levels(4000, (hump) => 0.05 * swing(perTurn)(hump), 0.001);
    expect(marked(little(10))).toMatchObject({ kind: "pattern", humps: 10 });
    expect(marked(little(14))).toEqual({ kind: "once-a-turn", humps: 14 });
  });

  test("two different bad bars, half a period apart, are not a variation", () => {
    const raw = levels(4000, (hump) => (hump % 8 === 1 ? -2 : hump % 8 === 5 ? -0.8 : 0));
    expect(marked(raw).kind).toBe("pattern");
  });

  test("a period no commutator has is reported as such, an even current and a short one as none", () => {
    expect(marked(levels(3000, swing(13)))).toMatchObject({ kind: "pattern", humps: 13 });
    expect(marked(levels(3000, () => 0)).kind).toBe("none");
    expect(marked(levels(20, swing(12))).kind).toBe("none");
    // Too small to be anything but a beat of the sampling.
    expect(marked(levels(3000, (hump) => 0.005 * swing(12)(hump), 0)).kind).toBe("none");
  });
});

describe("the line along a turn", () => {
  test("is the variation the values follow, whatever one or two outliers do", () => {
    const values = Float64Array.from({ length: 16 }, (_, hump) => 5 + Math.sin((2 * Math.PI * hump) / 16));
    values[3] = -20;
    values[11] = -20;
    const line = turnLine(values, 1);
    for (const hump of [0, 3, 5, 11, 15])
      expect(Math.abs(line.at(hump) - (5 + Math.sin((2 * Math.PI * hump) / 16)))).toBeLessThan(0.01);
    expect(line.swing).toBeCloseTo(2, 1);
  });

  test("has a second harmonic if requested, and is a level if there is no variation", () => {
    const values = Float64Array.from(
      { length: 24 },
      (_, hump) => 2 + 0.5 * Math.cos((4 * Math.PI * hump) / 24),
    );
    expect(turnLine(values, 2).at(12)).toBeCloseTo(2.5, 6);
    expect(turnLine(new Float64Array(12).fill(3), 1).swing).toBeCloseTo(0, 9);
  });
});
