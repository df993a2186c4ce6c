import type { Circuit } from "../circuit/circuit";
import type { AccessPlan } from "./plan";
import { quickestRoute } from "./route";
import { needsBatteryOff } from "./stepCaution";
import { wearingKinds } from "./wearingPart";

/** Something in a plan that is valid but will cause trouble for whoever follows it. */
export interface PlanFinding {
  readonly path: string;
  readonly what: PlanDoubt;
}

/** The step or part concerned, by name. */
export interface PlanDoubt {
  readonly code: "step-not-needed" | "no-way" | "negative-stays-on" | "part-not-reached" | "no-such-part";
  readonly about: string;
}

/**
 * Steps that no part needs, parts that no way reaches, parts of the circuit that the plan omits, and work that needs
 * the battery negative off where no step disconnects it. Circles and missing steps are refused when the plan is read.
 * @param circuit the vehicle's circuit, if known
 */
export function planFindings(plan: AccessPlan, circuit: Circuit | null): PlanFinding[] {
  const used = new Set<string>();
  const use = (id: string): void => {
    if (used.has(id)) return;
    used.add(id);
    for (const need of plan.steps.find((step) => step.id === id)?.needs?.flat() ?? []) use(need);
  };
  for (const ways of Object.values(plan.targets)) for (const id of ways.flat()) use(id);
  const orphans = plan.steps
    .map((step, index) => ({ step, index }))
    .filter(({ step }) => !used.has(step.id) && step.kind !== "battery-off")
    .map(({ step, index }) => ({
      path: `steps.${index}`,
      what: { code: "step-not-needed", about: step.title } as const,
    }));
  const shut = Object.keys(plan.targets)
    .filter((part) => {
      const route = quickestRoute(plan, [part]);
      return !route.ok && route.problems.some(({ code }) => code === "missing");
    })
    .map((part) => ({ path: `targets.${part}`, what: { code: "no-way", about: part } as const }));
  const battery = plan.steps.some(({ kind }) => kind === "battery-off")
    ? []
    : plan.steps.flatMap((step, index) =>
        needsBatteryOff(step)
          ? [
              {
                path: `steps.${index}`,
                what: { code: "negative-stays-on", about: step.title } as const,
              },
            ]
          : [],
      );
  return [...shut, ...orphans, ...battery, ...forgotten(plan, circuit)];
}

function forgotten(plan: AccessPlan, circuit: Circuit | null): PlanFinding[] {
  if (!circuit) return [];
  const known = new Set([...circuit.parts, ...circuit.connectors, ...circuit.wires].map(({ id }) => id));
  const missing = circuit.parts
    .filter(({ id, kind }) => wearingKinds.has(kind) && !Object.hasOwn(plan.targets, id))
    .map(({ id }) => ({ path: "targets", what: { code: "part-not-reached", about: id } as const }));
  const strange = Object.keys(plan.targets)
    .filter((id) => !known.has(id))
    .map((id) => ({ path: `targets.${id}`, what: { code: "no-such-part", about: id } as const }));
  return [...missing, ...strange];
}
