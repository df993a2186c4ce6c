import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { type Chance, chanceFrom } from "../chance/chance";
import { shippedEngine } from "../testing/shippedCircuit";
import {
  across,
  ampsOf,
  figuresAround,
  lightCalled,
  plugged,
  posts,
  shuffled,
  someOf,
  topOf,
} from "./exercise";
import { practiceCircuit } from "./practiceCase";

const on = practiceCircuit(shippedEngine("whimbrel-four-speed"));
const seeds = fc.integer({ min: 1, max: 2 ** 31 - 1 });

describe("chance", () => {
  const mean = (values: readonly number[]): number =>
    values.reduce((sum, own) => sum + own, 0) / values.length;
  const drawn = (of: (chance: Chance) => number, count = 4000): number[] => {
    const chance = chanceFrom(5);
    return Array.from({ length: count }, () => of(chance));
  };

  // Uniform distribution: mean 1/2, variance 1/12.
  test("is uniform, and so are its ranges", () => {
    const values = drawn((chance) => chance.uniform());
    expect(mean(values)).toBeCloseTo(0.5, 1);
    expect(mean(values.map((own) => (own - 0.5) ** 2))).toBeCloseTo(1 / 12, 2);
    for (const own of values) expect(own > 0 && own < 1).toBe(true);
    const ranged = drawn((chance) => chance.between(-3, 5));
    expect(mean(ranged)).toBeCloseTo(1, 0);
    expect(Math.min(...ranged)).toBeGreaterThan(-3);
    expect(Math.max(...ranged)).toBeLessThan(5);
  });

  test("is uniform on a log scale: half of it lies below the geometric middle", () => {
    const values = drawn((chance) => chance.logBetween(0.1, 10));
    expect(values.filter((own) => own < 1).length / values.length).toBeCloseTo(0.5, 1);
  });

  test("follows its weights", () => {
    const values = drawn((chance) => chance.weighted([1, 0, 3]));
    expect(values.filter((own) => own === 1)).toEqual([]);
    expect(values.filter((own) => own === 2).length / values.length).toBeCloseTo(0.75, 1);
  });

  test("neighbouring seeds do not start alike", () => {
    const first = Array.from({ length: 200 }, (_, seed) => chanceFrom(seed + 1).uniform());
    expect(new Set(first.map((own) => own.toFixed(6))).size).toBe(200);
    expect(mean(first)).toBeCloseTo(0.5, 1);
  });

  test("picks nothing from an empty list", () => {
    expect(() => chanceFrom(1).pick([])).toThrow(RangeError);
  });
});

describe("the choices", () => {
  test("shuffled, they are the same choices", () => {
    fc.assert(
      fc.property(fc.array(fc.integer()), seeds, (items, seed) => {
        const mixed = shuffled(items, chanceFrom(seed));
        expect([...mixed].sort((a, b) => a - b)).toEqual([...items].sort((a, b) => a - b));
      }),
    );
  });

  test("a selection keeps the order, and never has more than there are", () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer()),
        fc.integer({ min: 0, max: 8 }),
        seeds,
        (items, count, seed) => {
          const few = someOf(items, count, chanceFrom(seed));
          expect(few).toHaveLength(Math.min(count, items.length));
          const places = few.map((own) => items.indexOf(own));
          expect(places).toEqual([...places].sort((a, b) => a - b));
        },
      ),
    );
  });

  test("every order of three occurs", () => {
    const orders = new Set(
      Array.from({ length: 200 }, (_, seed) => shuffled(["a", "b", "c"], chanceFrom(seed)).join("")),
    );
    expect(orders.size).toBe(6);
  });

  test("figures are apart, no two read alike, and the right one is there", () => {
    const text = (own: number): string => `${own.toFixed(1)} V`;
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 14, noNaN: true }),
        fc.array(fc.double({ min: 0, max: 14, noNaN: true }), { maxLength: 6 }),
        seeds,
        (right, others, seed) => {
          const made = figuresAround(right, others, 0.3, text, chanceFrom(seed));
          const ids = made.answers;
          expect(ids.length).toBeLessThanOrEqual(4);
          expect(new Set(ids).size).toBe(ids.length);
          expect(ids).toContain(made.right[0]);
          const figures = ids.map((own) => Number.parseFloat(own)).sort((a, b) => a - b);
          figures.slice(1).forEach((own, i) => {
            // Rounded to a tenth, a difference of three tenths may read as two.
            expect(own - (figures[i] ?? 0)).toBeGreaterThan(0.15);
          });
        },
      ),
    );
  });
});

describe("measurements for a question", () => {
  const top = { key: "run", setting: topOf(on) } as const;

  test("posts, pins and the strongest setting are the circuit's own", () => {
    expect(posts(on)).toEqual({ plus: "G1.+", minus: "G1.-" });
    expect(plugged(on, "R1.T1")).toBe("X5:1");
    expect(plugged(on, "F7.in")).toBe("F7.in");
    expect(topOf(on)).toBe("4");
  });

  test("a motor's amps fall with every step of the pack, and are zero with the key out", () => {
    const amps = ["1", "2", "3", "4"].map((setting) => ampsOf(on, { key: "run", setting }, "M1"));
    for (const [i, own] of amps.slice(1).entries()) expect(own).toBeGreaterThan(amps[i] ?? 0);
    expect(ampsOf(on, { key: "off", setting: "4" }, "M1")).toBe(0);
  });

  // By Ohm's law: an added resistance drops its ohms times the current that then flows.
  test("a bad joint drops its ohms times the current", () => {
    const index = on.exact.branchOf.get("W10");
    if (index === undefined) throw new Error("no such wire");
    const change = { type: "series", branch: index, ohms: 0.3 } as const;
    const [from, to] = [plugged(on, "M1.-"), on.exact.circuit.wires.find(({ id }) => id === "W10")?.to ?? ""];
    const [sound, bad] = [across(on, top, from, to), across(on, top, from, to, [change])];
    const amps = ampsOf(on, top, "W10", [change]);
    expect(Math.abs(bad.volts)).toBeCloseTo(
      0.3 * amps + Math.abs(sound.volts) * (amps / ampsOf(on, top, "W10")),
      2,
    );
    expect(amps).toBeLessThan(ampsOf(on, top, "W10"));
  });

  test("the light at a sound feed is bright from ground, dark from feed", () => {
    expect(lightCalled(across(on, top, "F7.in", "G1.-"))).toBe("bright");
    expect(lightCalled(across(on, top, "F7.in", "G1.+"))).toBe("dark");
  });
});
