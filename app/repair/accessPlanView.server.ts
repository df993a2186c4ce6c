import { planFindings } from "@core/access/planFinding";
import { planTemplates } from "@core/access/planTemplate";
import { routesText } from "@core/access/planText";
import { preferences, quickestRoute } from "@core/access/route";
import type { Circuit } from "@core/circuit/circuit";
import { findPlan } from "@db/repositories/plans.server";
import { planDoubtText } from "@words/accessWords";
import { repairName } from "@words/partName";
import { randomId } from "../text/randomId";
import { layOutPlan } from "./accessPlanLayout";

/** Everything the access plan editor shows of a circuit; `own` is null if it has no access plan. */
export async function accessPlanPageView(circuit: Circuit) {
  const stored = await findPlan(circuit.id);
  const shared = {
    shelfId: circuit.id,
    title: circuit.title,
    token: randomId(),
    templates: Object.entries(planTemplates).map(([id, { title }]) => ({ id, title })),
  };
  if (!stored) return { ...shared, own: null };
  const { plan, undo, redo } = stored;
  return {
    ...shared,
    own: {
      plan,
      undo,
      redo,
      layout: await layOutPlan(plan),
      findings: planFindings(plan, circuit).map(({ path, what }) => ({ path, words: planDoubtText(what) })),
      targets: Object.entries(plan.targets).map(([id, ways]) => ({
        id,
        name: repairName(circuit, [id]),
        ways: routesText(ways),
        routes: preferences.map((prefer) => {
          const route = quickestRoute(plan, [id], { prefer });
          return {
            prefer,
            minutes: route.ok ? route.value.minutes : null,
            steps: route.ok ? route.value.steps.map((step) => step.id) : [],
          };
        }),
      })),
      free: circuit.parts
        .filter((part) => !Object.hasOwn(plan.targets, part.id))
        .map(({ id }) => ({ id, name: repairName(circuit, [id]) })),
    },
  };
}

export type AccessPlanPageData = Awaited<ReturnType<typeof accessPlanPageView>>;
