import { z } from "zod";
import { type Parsed, type Problem, problemsOf, quoted, refused } from "../problem/problem";
import { fastenerSchema } from "./fastenerSchema";
import { stepCautions } from "./stepCaution";
import { stepKinds } from "./stepKind";

export const stepIdSchema = z
  .string()
  .regex(/^[A-Za-z][A-Za-z0-9_-]{0,47}$/, "must be letters, digits, _ or -");
/** Ways to meet a need: any one of the lists, with all the steps in it. */
const anyOf = z.array(z.array(stepIdSchema).max(50)).max(20);

/** What a plug's tab needs to release. */
export const tabs = ["press", "lift", "slide", "squeeze", "lever"] as const;

/** The name of the test before the panels, which stands among the refitting steps. */
export const testStepId = "test";

const itemId = z.string().min(1).max(32);
const minutes = z.number().min(0).max(10_000);

export const stepSchema = z.strictObject({
  id: stepIdSchema,
  title: z.string().min(1).max(200),
  /** Mean minutes of the step. */
  minutes,
  /** Minutes it takes at least one time in ten; 1.6 times the mean by default. */
  slowMinutes: minutes.optional(),
  needs: anyOf.optional(),
  tools: z.array(z.string().min(1).max(60)).max(20).optional(),
  /** How it is refitted; by default the title with the direction reversed, null if nothing is refitted. */
  back: z.string().max(200).nullable().optional(),
  kind: z.enum(stepKinds).optional(),
  fasteners: z.array(fastenerSchema).max(12).optional(),
  /** Plugs to disconnect, and what their tab needs. */
  plugs: z
    .array(z.strictObject({ id: itemId, tab: z.enum(tabs).optional() }))
    .max(12)
    .optional(),
  /** Vent and drain tubes to disconnect. */
  tubes: z.number().int().min(1).max(8).optional(),
  /** What then hangs by its wires and needs support. */
  hangs: z.string().min(1).max(100).optional(),
  /** The only position in which it fits. */
  keyed: z.string().min(1).max(120).optional(),
  /** Which approach the step belongs to; absent if it belongs to all. */
  way: z.enum(["book", "short-cut", "other-side"]).optional(),
  /** What may go wrong, how often, and the minutes it then takes. */
  risk: z.strictObject({ p: z.number().min(0).max(1), minutes, what: z.string().min(1).max(120) }).optional(),
  /** What it costs the next person, and why. */
  nextPerson: z.strictObject({ minutes, why: z.string().min(1).max(160) }).optional(),
  /** What is used up: a ring, self-tapping screws, a strip. */
  uses: z.array(z.string().min(1).max(80)).max(12).optional(),
  /** Parts and plugs that can be tested once it is done. */
  opens: z.array(itemId).max(30).optional(),
  cautions: z.array(z.enum(stepCautions)).max(8).optional(),
});

/** The shape of an `airway-plan` file, version 1: what covers what, on the way to the parts. */
export const planSchema = z.strictObject({
  format: z.literal("airway-plan"),
  version: z.literal(1),
  id: z.string().max(64),
  title: z.string().max(200).optional(),
  /** Ids of the circuits of the vehicles it covers. */
  circuits: z.array(z.string().min(1).max(64)).max(50).optional(),
  /** Where the motor sits, for someone who has never seen this vehicle. */
  where: z.string().max(300).optional(),
  steps: z.array(stepSchema).min(1).max(400),
  /** Steps that expose each part, written like needs. */
  targets: z.record(z.string().max(32), anyOf),
});

export type AccessPlan = z.infer<typeof planSchema>;
export type AccessStep = AccessPlan["steps"][number];
/** Any one of the lists, with all the steps in it. */
export type Routes = readonly (readonly string[])[];

/** Reads an access plan. Every step named must exist, and none may need itself. */
export function parsePlan(input: unknown): Parsed<AccessPlan> {
  const shaped = planSchema.safeParse(input);
  if (!shaped.success) return refused(problemsOf(shaped.error, input));
  const plan = shaped.data;
  const problems = planProblems(plan);
  return problems.length > 0 ? refused(problems) : { ok: true, value: plan };
}

function planProblems(plan: AccessPlan): Problem[] {
  const known = new Set<string>();
  const problems: Problem[] = [];
  plan.steps.forEach(({ id }, index) => {
    if (known.has(id))
      problems.push({ code: "duplicate", path: `steps.${index}.id`, message: `duplicate id ${quoted(id)}` });
    if (id === testStepId)
      problems.push({
        code: "contradiction",
        path: `steps.${index}.id`,
        message: `"${testStepId}" is the test before the panels`,
      });
    known.add(id);
  });
  const check = (path: string, ways: Routes): void =>
    ways.forEach((way, i) => {
      way.forEach((id, j) => {
        if (!known.has(id))
          problems.push({
            code: "no-such-thing",
            path: `${path}.${i}.${j}`,
            message: `no step ${quoted(id)}`,
          });
      });
    });
  plan.steps.forEach(({ needs }, index) => void check(`steps.${index}.needs`, needs ?? []));
  for (const [part, ways] of Object.entries(plan.targets)) check(`targets.${part}`, ways);
  plan.steps.forEach((step, index) => {
    if (step.slowMinutes !== undefined && step.slowMinutes < step.minutes)
      problems.push({
        code: "out-of-range",
        path: `steps.${index}.slowMinutes`,
        message: `must be at least the ${step.minutes} minutes it takes on the whole, got ${step.slowMinutes}`,
      });
  });
  return problems.length > 0 ? problems : circles(plan);
}

/** Ids of all steps that may have to come before a step, by any of its ways. */
export function stepsBefore(steps: readonly AccessStep[], { id }: Pick<AccessStep, "id">): Set<string> {
  const needs = new Map(steps.map((step) => [step.id, (step.needs ?? []).flat()]));
  const before = new Set<string>();
  const visit = (own: string): void => {
    for (const need of needs.get(own) ?? []) {
      if (before.has(need)) continue;
      before.add(need);
      visit(need);
    }
  };
  visit(id);
  return before;
}

/** Steps that need themselves by some way, with the circle they form. */
function circles({ steps }: AccessPlan): Problem[] {
  const needs = new Map(steps.map(({ id, needs: ways }) => [id, (ways ?? []).flat()]));
  const done = new Set<string>();
  const open: string[] = [];
  /** The circle that a step is part of, or null. */
  const visit = (id: string): readonly string[] | null => {
    if (done.has(id)) return null;
    const at = open.indexOf(id);
    if (at >= 0) return [...open.slice(at), id];
    open.push(id);
    for (const need of needs.get(id) ?? []) {
      const round = visit(need);
      if (round) return round;
    }
    open.pop();
    done.add(id);
    return null;
  };
  for (const [index, { id }] of steps.entries()) {
    const round = visit(id);
    if (!round) continue;
    const from = steps.findIndex((step) => step.id === round[0]);
    return [
      {
        code: "contradiction",
        path: `steps.${from < 0 ? index : from}.needs`,
        message: `${quoted(round[0])} comes round to itself: ${round.join(" needs ")}`,
      },
    ];
  }
  return [];
}
