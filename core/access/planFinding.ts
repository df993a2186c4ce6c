import type { Circuit } from "../circuit/circuit";
import type { AccessPlan } from "./plan";
import { quickestRoute } from "./route";
import { needsBatteryOff } from "./stepCaution";
import { wearingKinds } from "./wearingPart";

/** Something of a plan that is not wrong in itself but will trouble whoever follows it. */
export interface PlanFinding {
  readonly path: string;
  readonly what: PlanDoubt;
}

/** What troubles: a step or a part by its name. */
export interface PlanDoubt {
  readonly code: "step-not-needed" | "no-way" | "negative-stays-on" | "part-not-reached" | "no-such-part";
  readonly about: string;
}

/**
 * Steps no part needs, parts no way leads to, parts of the circuit the plan forgets, and work that wants the negative
 * off where no step takes it off. Circles and steps that are not there are refused on reading.
 * @param circuit the vehicle's circuit, where it is known
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
