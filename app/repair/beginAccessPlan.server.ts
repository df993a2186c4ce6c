import { parsePlan } from "@core/access/plan";
import { planTemplates } from "@core/access/planTemplate";
import type { Circuit } from "@core/circuit/circuit";
import { findPlan, storePlan } from "@db/repositories/plans.server";
import { data } from "react-router";
import { randomId } from "../text/randomId";

/**
 * Starts a vehicle's plan from a template with the circuit's own motor and pack; an existing plan is left unchanged.
 */
export async function beginPlan(circuit: Circuit, template: string): Promise<void> {
  const found = Object.hasOwn(planTemplates, template) ? planTemplates[template] : undefined;
  if (!found) throw data("There is no such template.", { status: 400 });
  if (await findPlan(circuit.id)) return;
  const first = (kind: string): string | undefined => circuit.parts.find((part) => part.kind === kind)?.id;
  const own: Readonly<Record<string, string | undefined>> = {
    M1: first("motor"),
    R1: first("resistor") ?? first("module"),
  };
  const plan = parsePlan({
    format: "airway-plan",
    version: 1,
    id: circuit.id,
    title: `${circuit.title}: ${found.title}`.slice(0, 200),
    circuits: [circuit.id],
    where: found.body.where,
    steps: found.body.steps.map((step) => ({
      ...step,
      ...(step.opens ? { opens: step.opens.flatMap((id) => own[id] ?? []) } : {}),
    })),
    targets: Object.fromEntries(
      Object.entries(found.body.targets).flatMap(([id, ways]) => (own[id] ? [[own[id], ways]] : [])),
    ),
  });
  if (!plan.ok) throw new Error("a template is no plan");
  await storePlan(circuit.id, plan.value, randomId());
}
