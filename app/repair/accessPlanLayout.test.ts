import { expect, test } from "@jest/globals";
import { shippedPlan, shippedPlans } from "../../core/testing/shippedPlan";
import { layOutPlan } from "./accessPlanLayout";

test.each(shippedPlans)(
  "%s: every step and part has its own box, and each need's line leads downwards",
  async (name) => {
    const plan = shippedPlan(name);
    const { boxes, lines, width, height } = await layOutPlan(plan);
    expect(boxes.filter(({ kind }) => kind === "step").map(({ id }) => id)).toEqual(
      plan.steps.map(({ id }) => id),
    );
    expect(boxes.filter(({ kind }) => kind === "part").map(({ id }) => id)).toEqual(
      Object.keys(plan.targets),
    );
    const needs = [...plan.steps.flatMap((step) => step.needs ?? []), ...Object.values(plan.targets).flat()];
    expect(lines).toHaveLength(needs.flat().length);
    for (const { corners } of lines) expect(corners.at(-1)?.y).toBeGreaterThan(corners[0]?.y ?? 0);
    for (const [i, a] of boxes.entries()) {
      expect(a.x + a.width).toBeLessThanOrEqual(width);
      expect(a.y + a.height).toBeLessThanOrEqual(height);
      for (const b of boxes.slice(i + 1)) {
        const apart =
          a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
        expect(apart).toBe(true);
      }
    }
  },
);
