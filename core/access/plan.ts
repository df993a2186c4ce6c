import { z } from "zod";
import { type Parsed, type Problem, problemsOf, quoted, refused } from "../formats/problem";

const stepId = z.string().regex(/^[A-Za-z][A-Za-z0-9_-]{0,47}$/, "must be letters, digits, _ or -");
/** Ways of meeting a need: any one of the lists, all the steps in it. */
const anyOf = z.array(z.array(stepId).max(50)).max(20);

const stepSchema = z.strictObject({
  id: stepId,
  title: z.string().min(1).max(200),
  minutes: z.number().min(0).max(10_000),
  needs: anyOf.optional(),
  tools: z.array(z.string().min(1).max(60)).max(20).optional(),
  /** How it goes back; the title the other way round unless said, null where nothing goes back. */
  back: z.string().max(200).nullable().optional(),
});

/** The shape of an `airway-plan` file, version 1: what covers what on the way to the parts. */
export const planSchema = z.strictObject({
  format: z.literal("airway-plan"),
  version: z.literal(1),
  id: z.string().max(64),
  title: z.string().max(200).optional(),
  steps: z.array(stepSchema).min(1).max(400),
  /** Steps that lay each part free, as needs are written. */
  targets: z.record(z.string().max(32), anyOf),
});

export type AccessPlan = z.infer<typeof planSchema>;
export type AccessStep = AccessPlan["steps"][number];

/** Reads an access plan: every step named must exist, and none may need itself. */
export function parsePlan(input: unknown): Parsed<AccessPlan> {
  const shaped = planSchema.safeParse(input);
  if (!shaped.success) return refused(problemsOf(shaped.error, input));
  const plan = shaped.data;
  const known = new Set<string>();
  const problems: Problem[] = [];
  plan.steps.forEach(({ id }, index) => {
    if (known.has(id)) problems.push({ path: `steps.${index}.id`, message: `duplicate id ${quoted(id)}` });
    known.add(id);
  });
  const check = (path: string, ways: readonly (readonly string[])[]): void =>
    ways.forEach((way, i) => {
      way.forEach((id, j) => {
        if (!known.has(id)) problems.push({ path: `${path}.${i}.${j}`, message: `no step ${quoted(id)}` });
      });
    });
  plan.steps.forEach(({ needs }, index) => void check(`steps.${index}.needs`, needs ?? []));
  for (const [part, ways] of Object.entries(plan.targets)) check(`targets.${part}`, ways);
  if (problems.length === 0) problems.push(...circles(plan));
  return problems.length > 0 ? refused(problems) : { ok: true, value: plan };
}

/** Steps that come round to themselves, by whichever way. */
function circles({ steps }: AccessPlan): Problem[] {
  const needs = new Map(steps.map(({ id, needs: ways }) => [id, (ways ?? []).flat()]));
  const state = new Map<string, "open" | "done">();
  const visit = (id: string): boolean => {
    if (state.get(id) === "done") return false;
    if (state.get(id) === "open") return true;
    state.set(id, "open");
    const circular = (needs.get(id) ?? []).some(visit);
    state.set(id, "done");
    return circular;
  };
  return steps.flatMap(({ id }, index) =>
    visit(id) ? [{ path: `steps.${index}.needs`, message: `${quoted(id)} comes round to itself` }] : [],
  );
}
