// The polybox of de Kleer and Williams, "Diagnosing multiple faults", Artificial Intelligence 32 (1987),
// section 1: multipliers M1 M2 M3 give X = A C, Y = B D, Z = C E; adders A1 A2 give F = X + Y, G = Y + Z.
// With A = 3, B = 2, C = 2, D = 3, E = 3 a sound box shows F = 12, G = 12; F = 10 is seen. Published there: the
// minimal diagnoses {A1}, {M1}, {A2, M2}, {M2, M3}, and X as the best place to measure next.
import { describe, expect, test } from "@jest/globals";
import { posteriorOf } from "./bayes";
import { entropyAfter, entropyBits } from "./entropy";

const parts = ["M1", "M2", "M3", "A1", "A2"] as const;
type Name = (typeof parts)[number];
const values = Array.from({ length: 13 }, (_, i) => i);
const failure = 0.01;

interface World {
  readonly faulty: ReadonlySet<Name>;
  readonly X: number;
  readonly Y: number;
  readonly Z: number;
  readonly F: number;
  readonly G: number;
}

/** Every assignment of outputs to the faulty parts; a faulty part may show any value. */
function worlds(faulty: ReadonlySet<Name>): World[] {
  const choices = (name: Name, sound: number): number[] => (faulty.has(name) ? values : [sound]);
  return choices("M1", 6).flatMap((X) =>
    choices("M2", 6).flatMap((Y) =>
      choices("M3", 6).flatMap((Z) =>
        choices("A1", X + Y).flatMap((F) => choices("A2", Y + Z).map((G) => ({ faulty, X, Y, Z, F, G }))),
      ),
    ),
  );
}

const hypotheses = Array.from(
  { length: 2 ** parts.length },
  (_, bits) => new Set(parts.filter((__, i) => bits & (1 << i))),
);

/** Prior times the share of a hypothesis's worlds that show the reading. */
const weightOf = (faulty: ReadonlySet<Name>): number => {
  const all = worlds(faulty);
  const fit = all.filter(({ F, G }) => F === 10 && G === 12).length / all.length;
  return fit * failure ** faulty.size * (1 - failure) ** (parts.length - faulty.size);
};

const { p } = posteriorOf(Float64Array.from(hypotheses, weightOf));

describe("the polybox", () => {
  test("has the published minimal diagnoses", () => {
    const possible = hypotheses.filter((_, i) => (p[i] as number) > 0);
    const minimal = possible.filter(
      (one) => !possible.some((other) => other.size < one.size && [...other].every((name) => one.has(name))),
    );
    expect(minimal.map((names) => [...names].sort().join()).sort()).toEqual(["A1", "A2,M2", "M1", "M2,M3"]);
  });

  test("is best measured at X next", () => {
    const left = (["X", "Y", "Z"] as const).map((place) => {
      const joint = values.map(() => new Float64Array(hypotheses.length));
      hypotheses.forEach((faulty, i) => {
        const fitting = worlds(faulty).filter(({ F, G }) => F === 10 && G === 12);
        for (const world of fitting) {
          const row = joint[world[place]] as Float64Array;
          row[i] = (row[i] as number) + (p[i] as number) / fitting.length;
        }
      });
      return { place, bits: entropyAfter(joint) };
    });
    left.sort((a, b) => a.bits - b.bits);
    expect(left[0]?.place).toBe("X");
    // A1 and M1 are equally likely, so X, which separates them, is worth nearly one bit.
    expect(entropyBits(p) - (left[0]?.bits ?? 0)).toBeGreaterThan(0.9);
  });
});
