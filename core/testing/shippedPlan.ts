import { readFileSync } from "node:fs";
import { join } from "node:path";
import { type AccessPlan, parsePlan } from "../access/plan";
import { problemText } from "../problem/problem";

/** A shipped plan's file, read anew each time so that a test may spoil it. */
export const planFile = (name: string): Record<string, unknown> =>
  JSON.parse(readFileSync(join(process.cwd(), "demo", "plans", `${name}.json`), "utf8")) as Record<
    string,
    unknown
  >;

/**
 * Reads a plan.
 * @throws if it is refused
 */
export function planOf(input: unknown): AccessPlan {
  const plan = parsePlan(input);
  if (!plan.ok) throw new Error(plan.problems.map(problemText).join("; "));
  return plan.value;
}

export const shippedPlan = (name: string): AccessPlan => planOf(planFile(name));
export const shippedPlans = [
  "whimbrel-blower",
  "siskin-glove-box",
  "godwit-moulded",
  "dunlin-bulkhead",
  "dotterel-ear",
] as const;
