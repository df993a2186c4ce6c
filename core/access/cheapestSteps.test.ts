// The independent check is brute force: every set of steps, on small random graphs.
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { randomSource } from "../chance/randomSource";
import { cheapestSteps, type GraphStep } from "./cheapestSteps";

const size = 11;
const drawn = fc.record({
  steps: fc.array(
    fc.record({
      cost: fc.integer({ min: 0, max: 9 }),
      ways: fc.array(fc.array(fc.nat(size - 1), { maxLength: 3 }), { maxLength: 3 }),
    }),
    { minLength: size, maxLength: size },
  ),
  goals: fc.array(fc.array(fc.array(fc.nat(size - 1), { maxLength: 2 }), { minLength: 1, maxLength: 3 }), {
    minLength: 1,
    maxLength: 3,
  }),
});

interface Graph {
  readonly steps: readonly GraphStep[];
  readonly goals: readonly (readonly (readonly string[])[])[];
}

/** Steps need only later ones, so that there are no circles. */
function graphOf({ steps, goals }: typeof drawn extends fc.Arbitrary<infer T> ? T : never): Graph {
  return {
    steps: steps.map(({ cost, ways }, i) => ({
      id: `s${i}`,
      cost,
      needs: ways
        .map((way) => way.filter((need) => need > i).map((need) => `s${need}`))
        .filter((way) => way.length > 0),
    })),
    goals: goals.map((ways) => ways.map((way) => way.map((id) => `s${id}`))),
  };
}

function bruteForce({ steps, goals }: Graph): number {
  const bitOf = new Map(steps.map(({ id }, i) => [id, 1 << i]));
  const masks = (ways: readonly (readonly string[])[]): number[] =>
    ways.map((way) => way.reduce((sum, id) => sum | (bitOf.get(id) ?? 0), 0));
  const needs = steps.map((step) => masks(step.needs));
  const wanted = goals.map(masks);
  let best = Number.POSITIVE_INFINITY;
  for (let set = 0; set < 2 ** steps.length; set++) {
    const met = (ways: readonly number[]): boolean => ways.some((way) => (way & ~set) === 0);
    if (!wanted.every(met)) continue;
    let cost = 0;
    let closed = true;
    for (let i = 0; closed && i < steps.length; i++) {
      if (!(set & (1 << i))) continue;
      const ways = needs[i] as number[];
      closed = ways.length === 0 || met(ways);
      cost += (steps[i] as GraphStep).cost;
    }
    if (closed && cost < best) best = cost;
  }
  return best;
}

test("is as cheap as brute force finds, and its steps can be done, on 600 random graphs", () => {
  let shared = 0;
  fc.assert(
    fc.property(drawn, (made) => {
      const graph = graphOf(made);
      const found = cheapestSteps(graph.steps, graph.goals);
      expect(found.kind === "found" ? found.cost : Number.POSITIVE_INFINITY).toBe(bruteForce(graph));
      if (found.kind !== "found") return;
      const { ids } = found;
      const met = (ways: readonly (readonly string[])[]): boolean =>
        ways.some((way) => way.every((id) => ids.has(id)));
      for (const goal of graph.goals) expect(met(goal)).toBe(true);
      for (const { id, needs } of graph.steps)
        if (ids.has(id) && needs.length > 0) expect(met(needs)).toBe(true);
      const sum = graph.steps.reduce((total, { id, cost }) => total + (ids.has(id) ? cost : 0), 0);
      expect(sum).toBe(found.cost);
      if (ids.size > 3) shared += 1;
    }),
    { numRuns: 600, seed: 11 },
  );
  // The graphs must include hard ones.
  expect(shared).toBeGreaterThan(100);
});

describe("by hand", () => {
  const step = (id: string, cost: number, ...needs: string[][]): GraphStep => ({ id, cost, needs });

  test("a step two goals share is paid for once", () => {
    const steps = [step("door", 5), step("a", 1, ["door"]), step("b", 1, ["door"])];
    expect(cheapestSteps(steps, [[["a"]], [["b"]]])).toEqual({
      kind: "found",
      ids: new Set(["door", "a", "b"]),
      cost: 7,
    });
  });

  test("a dearer way for one goal is taken if another goal pays for most of it", () => {
    const steps = [
      step("roof", 6),
      step("hole", 4),
      step("in", 0, ["hole"], ["roof"]),
      step("top", 1, ["roof"]),
    ];
    expect(cheapestSteps(steps, [[["in"]]])).toMatchObject({ cost: 4 });
    const both = cheapestSteps(steps, [[["in"]], [["top"]]]);
    expect(both.kind === "found" && [...both.ids]).toEqual(["roof", "in", "top"]);
  });

  test("no way is reported, and an empty way costs nothing", () => {
    const nothing = { kind: "found", ids: new Set(), cost: 0 };
    expect(cheapestSteps([step("a", 1)], [[]])).toEqual({ kind: "none" });
    expect(cheapestSteps([step("a", 1)], [[[]], [["a"], []]])).toEqual(nothing);
    expect(cheapestSteps([step("a", 1)], [])).toEqual(nothing);
  });

  test("with hundreds of entangled alternatives it stops and says so, and never returns a guess", () => {
    const { uniform } = randomSource(5);
    const steps = Array.from({ length: 300 }, (_, i) => {
      const later = (): string => `s${i + 1 + Math.floor(uniform() * Math.min(299 - i, 60))}`;
      const ways =
        i > 285
          ? []
          : [
              [later(), later()],
              [later(), later()],
              [later(), later()],
            ];
      return step(`s${i}`, 1 + Math.floor(uniform() * 9), ...ways);
    });
    const goals = Array.from({ length: 8 }, (_, i) => [[`s${i}`]]);
    expect(cheapestSteps(steps, goals)).toEqual({ kind: "too-many" });
  });
});
