import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { problemText } from "../problem/problem";
import { planFile, planOf, shippedPlan, shippedPlans } from "../testing/shippedPlan";
import { type AccessPlan, parsePlan, testStepId } from "./plan";
import { quickestRoute, type RouteOptions } from "./route";

const json = () => planFile("whimbrel-blower");

const idsTo = (plan: AccessPlan, ...targets: string[]): string[] => {
  const route = quickestRoute(plan, targets);
  return route.ok ? route.value.steps.map(({ id }) => id) : route.problems.map(problemText);
};

describe("the shipped plan", () => {
  const plan = planOf(json());

  test("takes the quicker of two ways, in a possible order, and refits in the reverse order", () => {
    expect(idsTo(plan, "R1")).toEqual(["mat", "lower-panel", "x5-off", "pack-screws"]);
    const route = quickestRoute(plan, ["R1"]);
    expect(route.ok && route.value).toMatchObject({ minutes: 5, tools: ["trim lever", "7 mm socket"] });
    expect(route.ok && route.value.back[0]?.work).toMatchObject({
      step: { back: "Refit the pack: seat the screws, then an eighth of a turn" },
    });
    expect(route.ok && route.value.back.at(-1)?.work).toMatchObject({
      step: { back: "Lay the floor mat flat, with nothing under it" },
    });
  });

  test("takes the short cut only if its other needs do not cost what it saves, and pays for shared steps once", () => {
    // Screws: 0.5 + 2 + 0.5 + 6 = 9. Trimmed ear: 3 + 0.5 + 2 + 0.5 + 3 = 9 too; the first way is kept.
    expect(idsTo(plan, "M1")).toContain("motor-screws");
    const both = quickestRoute(plan, ["M1", "R1"]);
    expect(both.ok && both.value.minutes).toBe(9 + 0.5 + 2);
  });

  test("an unknown target is named together with the known ones", () => {
    expect(idsTo(plan, "Q9")).toEqual(['--to: the plan does not reach "Q9", it reaches R1, M1, X5, X3']);
  });
});

interface Spoilt {
  steps: Record<string, unknown>[];
  targets: Record<string, unknown>;
}

/** A step of a plan that a test changes. */
const stepAt = (plan: Spoilt, index: number): Record<string, unknown> => plan.steps[index] ?? {};

describe("a plan that is wrong", () => {
  test.each<[string, (plan: Spoilt) => void, RegExp]>([
    [
      "a step that is not there",
      (plan) => (stepAt(plan, 3).needs = [["roof"]]),
      /^steps\.3\.needs\.0\.0: no step "roof"$/,
    ],
    ["a duplicate", (plan) => (stepAt(plan, 1).id = "negative"), /steps\.1\.id: duplicate id "negative"/],
    [
      "a circle, with its round",
      (plan) => (stepAt(plan, 1).needs = [["x3-off"]]),
      /"mat" comes round to itself: mat needs x3-off needs lower-panel needs mat/,
    ],
    [
      "a slow case that is quicker than the usual one",
      (plan) => (stepAt(plan, 1).slowMinutes = 0.1),
      /steps\.1\.slowMinutes: must be at least the 0\.5 minutes/,
    ],
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
      // Steps need only later ones, so there are no circles.
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

const routeTo = (name: (typeof shippedPlans)[number], targets: string[], options: RouteOptions = {}) => {
  const route = quickestRoute(shippedPlan(name), targets, options);
  if (!route.ok) throw new Error(route.problems.map(problemText).join());
  return route.value;
};

describe("a safe way, of three kinds", () => {
  test("the quickest breaks an ear in minutes, the book removes the dash in hours, and the cost to the next person is shown", () => {
    const quick = routeTo("dotterel-ear", ["M1"]);
    expect(quick.steps.map(({ id }) => id)).toContain("break-ear");
    expect(quick.nextPersonMinutes).toBe(5);
    const book = routeTo("dotterel-ear", ["M1"], { prefer: "book" });
    expect(book.steps.map(({ id }) => id)).toEqual(expect.arrayContaining(["dash-out", "third-screw"]));
    expect(book.steps.map(({ id }) => id)).not.toContain("break-ear");
    expect(book.minutes).toBeGreaterThan(20 * quick.minutes);
  });

  test("if the next person's minutes count, a short cut that barely pays is not used", () => {
    const plan = planOf(json());
    const ear = plan.steps.find(({ id }) => id === "cut-ear");
    const cheaper = planOf({
      ...plan,
      steps: plan.steps.map((step) => (step === ear ? { ...step, minutes: 2 } : step)),
    });
    const ids = (options: RouteOptions) => {
      const route = quickestRoute(cheaper, ["M1"], options);
      return route.ok ? route.value.steps.map(({ id }) => id) : [];
    };
    expect(ids({})).toContain("cut-ear");
    expect(ids({ prefer: "kind" })).not.toContain("cut-ear");
  });

  test("steps that cut, or move the battery, have the negative off first even if the plan omits it", () => {
    const cut = routeTo("godwit-moulded", ["M1"]);
    expect(cut.steps[0]?.id).toBe("negative");
    expect(cut.uses).toEqual(["adaptor ring", "six self-tapping screws", "sealing strip", "two 10 mm nuts"]);
    expect(routeTo("godwit-moulded", ["R2"]).steps.map(({ id }) => id)).not.toContain("negative");
  });

  test("by the book there may be no route, which is reported", () => {
    const plan = shippedPlan("dotterel-ear");
    const without = planOf({ ...plan, targets: { M1: [["break-ear"]] } });
    const route = quickestRoute(without, ["M1"], { prefer: "book" });
    expect(route.ok ? "" : route.problems[0]?.message).toMatch(/by the book/);
  });

  test("risk counts by its expected cost: a likely tear makes the longer route better", () => {
    const plan = shippedPlan("dotterel-ear");
    const torn = planOf({
      ...plan,
      steps: plan.steps.map((step) =>
        step.risk ? { ...step, risk: { ...step.risk, p: 0.9, minutes: 400 } } : step,
      ),
    });
    const route = quickestRoute(torn, ["M1"]);
    expect(route.ok && route.value.steps.map(({ id }) => id)).toContain("dash-out");
  });

  test("steps already done cost nothing, are not listed again, and neither are their needs", () => {
    const done = new Set(["glove-box", "flap"]);
    const left = routeTo("siskin-glove-box", ["R1"], { done });
    const whole = routeTo("siskin-glove-box", ["R1"]);
    expect(left.minutes).toBeCloseTo(whole.minutes - 5, 9);
    expect(left.steps.map(({ id }) => id)).not.toContain("glove-box");
  });

  test("lists each tool once, with the sockets that can replace it", () => {
    const { tools, substitutes } = routeTo("siskin-glove-box", ["R1"]);
    expect(tools).toEqual(["PH2 Phillips screwdriver", "10 mm socket", "5.5 mm socket", "T20 driver"]);
    expect(substitutes).toEqual([
      { tool: "5.5 mm socket", instead: "7/32 in", errorMillimetres: 0.056, fit: "snug" },
    ]);
  });
});

test("on random plans every step comes after its needs and is refitted before them, with the negative where it must be", () => {
  const anyStep = fc.record({
    minutes: fc.integer({ min: 0, max: 9 }),
    kind: fc.constantFrom(undefined, "panel", "plug", "cut", "battery", "splice", "out"),
    short: fc.boolean(),
    ways: fc.array(fc.array(fc.nat(13), { minLength: 1, maxLength: 2 }), { maxLength: 2 }),
  });
  let met = 0;
  fc.assert(
    fc.property(
      fc.array(anyStep, { minLength: 14, maxLength: 14 }),
      fc.constantFrom("quickest", "book", "kind"),
      fc.constantFrom("panel", "battery", "cut", null),
      (made, prefer, cover) => {
        const steps = made.map(({ minutes, kind, short, ways }, i) => ({
          id: `s${i}`,
          title: `s${i}`,
          minutes,
          ...(kind ? { kind } : {}),
          ...(short ? { way: "short-cut" } : {}),
          needs: ways
            .map((way) => way.filter((need) => need > i).map((need) => `s${need}`))
            .filter((way) => way.length > 0),
        }));
        const negative = {
          id: "negative",
          title: "negative",
          minutes: 1,
          kind: "battery-off",
          // What covers the battery comes before its negative, even if that step moves or cuts something itself.
          ...(cover ? { needs: [["cover"]] } : {}),
        };
        const covers = cover ? [{ id: "cover", title: "cover", minutes: 1, kind: cover }] : [];
        const plan = planOf({
          format: "airway-plan",
          version: 1,
          id: "any",
          // In the middle of the plan, because its place must not matter.
          steps: [...steps.slice(0, 7), negative, ...steps.slice(7), ...covers],
          targets: { A: [["s0"], ["s1", "s2"]], B: [["s3"]] },
        });
        const route = quickestRoute(plan, ["A", "B"], { prefer: prefer as "book" });
        if (!route.ok) {
          expect(prefer).toBe("book");
          return;
        }
        met += 1;
        const order = route.value.steps.map(({ id }) => id);
        const before = (step: string, need: string): boolean =>
          order.includes(need) && order.indexOf(need) < order.indexOf(step);
        const back = route.value.back.map(({ id }) => id).filter((id) => id !== testStepId);
        expect(new Set(order).size).toBe(order.length);
        expect([...back].sort()).toEqual([...order].sort());
        for (const step of route.value.steps) {
          const ways = step.needs ?? [];
          const way = ways.find((own) => own.every((need) => before(step.id, need)));
          expect(ways.length === 0 || way !== undefined).toBe(true);
          for (const need of way ?? []) expect(back.indexOf(step.id)).toBeLessThan(back.indexOf(need));
          const wantsOff = step.kind === "cut" || step.kind === "splice" || step.kind === "battery";
          if (wantsOff && step.id !== "cover") expect(before(step.id, "negative")).toBe(true);
          if (prefer === "book") expect(step.way).not.toBe("short-cut");
        }
        // The negative comes as late as the steps that cover it allow.
        if (order.includes("negative"))
          expect(back.slice(back.indexOf("negative") + 1)).toEqual(cover ? ["cover"] : []);
      },
    ),
    { numRuns: 600, seed: 21 },
  );
  // Most of them have a route.
  expect(met).toBeGreaterThan(300);
});

test.each(shippedPlans)(
  "%s: each part can be reached, every step after its needs, and refitted in reverse",
  (name) => {
    const plan = shippedPlan(name);
    for (const target of Object.keys(plan.targets)) {
      const { steps, back, expected, minutes } = routeTo(name, [target]);
      const at = new Map(steps.map(({ id }, index) => [id, index]));
      for (const step of steps) {
        const ways = step.needs ?? [];
        const met = ways.some((way) =>
          way.every((need) => (at.get(need) ?? 1e9) < (at.get(step.id) as number)),
        );
        expect(ways.length === 0 || met).toBe(true);
      }
      expect(back).toHaveLength(steps.filter((step) => step.back !== null).length + 1);
      expect(expected.low).toBeLessThan(minutes);
      expect(expected.high).toBeGreaterThan(minutes);
    }
  },
);
