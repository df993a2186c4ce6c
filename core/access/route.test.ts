import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { problemText } from "../formats/problem";
import { type AccessPlan, parsePlan } from "./plan";
import { quickestRoute } from "./route";

const json = (): Record<string, unknown> =>
  JSON.parse(readFileSync(join(process.cwd(), "demo", "plans", "whimbrel-blower.json"), "utf8")) as Record<
    string,
    unknown
  >;

function planOf(input: unknown): AccessPlan {
  const plan = parsePlan(input);
  if (!plan.ok) throw new Error(plan.problems.map(problemText).join("; "));
  return plan.value;
}

const idsTo = (plan: AccessPlan, ...targets: string[]): string[] => {
  const route = quickestRoute(plan, targets);
  return route.ok ? route.value.steps.map(({ id }) => id) : route.problems.map(problemText);
};

describe("the shipped plan", () => {
  const plan = planOf(json());

  test("goes the quicker of two ways, in an order that can be done, and back the other way round", () => {
    expect(idsTo(plan, "R1")).toEqual(["mat", "lower-panel", "x5-off", "pack-screws"]);
    const route = quickestRoute(plan, ["R1"]);
    expect(route.ok && route.value).toMatchObject({ minutes: 5, tools: ["trim lever", "7 mm socket"] });
    expect(route.ok && route.value.back[0]).toBe("Pack in: seated plus an eighth of a turn");
    expect(route.ok && route.value.back.at(-1)).toBe("Floor mat down, nothing under it");
  });

  test("takes the short cut only where what it needs besides does not eat what it saves, and pays shared steps once", () => {
    // Screws: 0.5 + 2 + 0.5 + 6 = 9. Trimmed ear: 3 + 0.5 + 2 + 0.5 + 3 = 9 too; the first way stands.
    expect(idsTo(plan, "M1")).toContain("motor-screws");
    const both = quickestRoute(plan, ["M1", "R1"]);
    expect(both.ok && both.value.minutes).toBe(9 + 0.5 + 2);
  });

  test("a target it does not know is named with those it does", () => {
    expect(idsTo(plan, "Q9")).toEqual(['--to: the plan does not reach "Q9", it reaches R1, M1, X5, X3']);
  });
});

interface Spoilt {
  steps: Record<string, unknown>[];
  targets: Record<string, unknown>;
}

/** A step of a plan about to be spoiled. */
const stepAt = (plan: Spoilt, index: number): Record<string, unknown> => plan.steps[index] ?? {};

describe("a plan that is wrong", () => {
  test.each<[string, (plan: Spoilt) => void, RegExp]>([
    [
      "a step that is not there",
      (plan) => (stepAt(plan, 3).needs = [["roof"]]),
      /^steps\.3\.needs\.0\.0: no step "roof"$/,
    ],
    ["a duplicate", (plan) => (stepAt(plan, 1).id = "negative"), /steps\.1\.id: duplicate id "negative"/],
    ["a circle", (plan) => (stepAt(plan, 1).needs = [["pack-screws"]]), /comes round to itself/],
    ["an unknown key", (plan) => (stepAt(plan, 0).colour = "red"), /steps\.0: unknown key "colour"/],
    [
      "a target that leads nowhere",
      (plan) => (plan.targets.M1 = [["moon"]]),
      /targets\.M1\.0\.0: no step "moon"/,
    ],
  ])("%s is refused by its place", (_, spoil, message) => {
    const spoilt = json();
    spoil(spoilt as unknown as Spoilt);
    const plan = parsePlan(spoilt);
    expect(plan.ok ? "accepted" : plan.problems.map(problemText).join()).toMatch(message);
  });
});

test("the quickest set equals brute force over every set of steps", () => {
  const size = 7;
  const anyPlan = fc.array(
    fc.record({
      minutes: fc.integer({ min: 1, max: 9 }),
      ways: fc.array(fc.array(fc.nat(size - 1), { maxLength: 2 }), { maxLength: 2 }),
    }),
    { minLength: size, maxLength: size },
  );
  fc.assert(
    fc.property(anyPlan, (made) => {
      // Steps need only later ones, so nothing comes round to itself.
      const steps = made.map(({ minutes, ways }, i) => ({
        id: `s${i}`,
        title: `s${i}`,
        minutes,
        needs: ways.map((way) => way.filter((need) => need > i).map((need) => `s${need}`)),
      }));
      const plan = planOf({
        format: "airway-plan",
        version: 1,
        id: "any",
        steps,
        targets: { A: [["s0"]], B: [["s1"]] },
      });
      const closed = (set: number): boolean =>
        steps.every(({ needs }, i) => {
          if (!(set & (1 << i)) || needs.length === 0) return true;
          return needs.some((way) => way.every((need) => set & (1 << Number(need.slice(1)))));
        });
      let best = Number.POSITIVE_INFINITY;
      for (let set = 3; set < 2 ** size; set++) {
        if ((set & 3) !== 3 || !closed(set)) continue;
        best = Math.min(
          best,
          steps.reduce((sum, { minutes }, i) => sum + (set & (1 << i) ? minutes : 0), 0),
        );
      }
      const route = quickestRoute(plan, ["A", "B"]);
      expect(route.ok && route.value.minutes).toBe(best);
    }),
    { numRuns: 200, seed: 4 },
  );
});
