import { z } from "zod";
import { type Parsed, quoted, refused } from "../problem/problem";
import { type AccessPlan, parsePlan, stepIdSchema, stepSchema } from "./plan";

const anyOf = z.array(z.array(stepIdSchema).max(50)).max(20);

/** One change to a plan, step by step. */
export const planEditSchema = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("add"), step: stepSchema, after: stepIdSchema.optional() }),
  z.strictObject({ do: z.literal("set"), id: stepIdSchema, step: stepSchema }),
  z.strictObject({ do: z.literal("remove"), id: stepIdSchema }),
  z.strictObject({ do: z.literal("target"), part: z.string().min(1).max(32), ways: anyOf }),
  z.strictObject({ do: z.literal("drop-target"), part: z.string().min(1).max(32) }),
  z.strictObject({ do: z.literal("name"), title: z.string().min(1).max(200), where: z.string().max(300) }),
]);
export type PlanEdit = z.infer<typeof planEditSchema>;

/** A plan after one change; refused, with the place, if the result is not a valid plan. */
export function editedPlan(plan: AccessPlan, edit: PlanEdit): Parsed<AccessPlan> {
  const changed = change(plan, edit);
  return "problem" in changed
    ? refused([{ code: "contradiction", path: "steps", message: changed.problem }])
    : parsePlan(changed.plan);
}

type Changed = { readonly plan: AccessPlan } | { readonly problem: string };

function change(plan: AccessPlan, edit: PlanEdit): Changed {
  const at = (id: string): number => plan.steps.findIndex((step) => step.id === id);
  switch (edit.do) {
    case "add": {
      const place = edit.after === undefined ? plan.steps.length : at(edit.after) + 1;
      return { plan: { ...plan, steps: plan.steps.toSpliced(place, 0, edit.step) } };
    }
    case "set": {
      const place = at(edit.id);
      if (place < 0) return { problem: `no step ${quoted(edit.id)}` };
      const renamed =
        edit.step.id === edit.id ? plan : mapIds(plan, (id) => (id === edit.id ? edit.step.id : id));
      return { plan: { ...renamed, steps: renamed.steps.with(place, edit.step) } };
    }
    case "remove": {
      if (at(edit.id) < 0) return { problem: `no step ${quoted(edit.id)}` };
      const without = mapIds(plan, (id) => (id === edit.id ? null : id));
      return { plan: { ...without, steps: without.steps.filter(({ id }) => id !== edit.id) } };
    }
    case "target":
      return { plan: { ...plan, targets: { ...plan.targets, [edit.part]: edit.ways } } };
    case "drop-target":
      return {
        plan: {
          ...plan,
          targets: Object.fromEntries(Object.entries(plan.targets).filter(([part]) => part !== edit.part)),
        },
      };
    case "name":
      return { plan: { ...plan, title: edit.title, where: edit.where } };
  }
}

/** A plan whose needs and targets name renamed steps; null removes one from every way that contains it. */
function mapIds(plan: AccessPlan, name: (id: string) => string | null): AccessPlan {
  const mapped = (ways: readonly (readonly string[])[]): string[][] =>
    ways.map((way) => way.flatMap((id) => name(id) ?? []));
  return {
    ...plan,
    steps: plan.steps.map((step) => (step.needs ? { ...step, needs: mapped(step.needs) } : step)),
    targets: Object.fromEntries(Object.entries(plan.targets).map(([part, ways]) => [part, mapped(ways)])),
  };
}
