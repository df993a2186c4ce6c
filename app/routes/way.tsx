import { type AccessPlan, parsePlan } from "@core/access/plan";
import { editedPlan, type PlanEdit, planEditSchema } from "@core/access/planEdit";
import { parseRoutes } from "@core/access/planText";
import { parsedJson } from "@core/formats/parsedJson";
import { type Parsed, problemsOf, problemText, refused } from "@core/problem/problem";
import { findCircuit, versionsOf } from "@db/repositories/circuits.server";
import { findPlan, movePlan, storePlan } from "@db/repositories/plans.server";
import { data, Link } from "react-router";
import { AccessPlanEditor, AccessPlanTemplates } from "../repair/AccessPlanEditor";
import { accessPlanPageView } from "../repair/accessPlanView.server";
import { beginPlan } from "../repair/beginAccessPlan.server";
import { stepFrom } from "../repair/stepForm";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/way";

/** The newest version of the address's circuit; answers 404 if the shelf has none. */
async function circuitAt(id: string) {
  const [newest] = await versionsOf(id);
  const circuit = newest ? await findCircuit(newest.rowId) : null;
  if (!circuit) throw data("There is no such circuit.", { status: 404 });
  return circuit;
}

export async function loader({ params }: Route.LoaderArgs) {
  return accessPlanPageView(await circuitAt(params.id));
}

/** The change a form asks for, not yet applied. */
function editOf(
  intent: string,
  fields: Record<string, string>,
  cautions: readonly string[],
): Parsed<PlanEdit> {
  const made = ((): Parsed<unknown> => {
    const text = (name: string): string => (fields[name] ?? "").trim();
    switch (intent) {
      case "step": {
        const step = stepFrom(fields, cautions);
        if (!step.ok) return step;
        return {
          ok: true,
          value: fields.was
            ? { do: "set", id: fields.was, step: step.value }
            : { do: "add", step: step.value },
        };
      }
      case "remove":
        return { ok: true, value: { do: "remove", id: text("was") } };
      case "target":
        return { ok: true, value: { do: "target", part: text("part"), ways: parseRoutes(text("ways")) } };
      case "drop-target":
        return { ok: true, value: { do: "drop-target", part: text("part") } };
      case "name":
        return { ok: true, value: { do: "name", title: text("title"), where: text("where") } };
      default:
        return refused([
          { code: "unreadable", path: "", message: "that could not be read; load the page again" },
        ]);
    }
  })();
  if (!made.ok) return made;
  const edit = planEditSchema.safeParse(made.value);
  return edit.success ? { ok: true, value: edit.data } : refused(problemsOf(edit.error, made.value));
}

const answer = (problem: string | null) =>
  problem === null ? { problem } : data({ problem }, { status: 400 });

export async function action({ params, request }: Route.ActionArgs) {
  const circuit = await circuitAt(params.id);
  const sent = await sentForm(request);
  const fields: Record<string, string> = {};
  for (const [name, value] of sent) if (typeof value === "string") fields[name] = value.slice(0, 300_000);
  const { intent = "", token = "" } = fields;
  if (!/^[0-9a-f-]{36}$/.test(token)) return answer("that could not be read; load the page again");
  if (intent === "begin") {
    await beginPlan(circuit, fields.template ?? "");
    return answer(null);
  }
  if (intent === "undo" || intent === "redo") {
    await movePlan(circuit.id, intent === "undo" ? -1 : 1, token);
    return answer(null);
  }
  const changed = async (): Promise<Parsed<AccessPlan>> => {
    const stored = await findPlan(circuit.id);
    if (!stored)
      return refused([{ code: "no-such-thing", path: "", message: "this vehicle has no access plan yet" }]);
    const cautions = sent.getAll("cautions").filter((own): own is string => typeof own === "string");
    const edit = editOf(intent, fields, cautions);
    return edit.ok ? editedPlan(stored.plan, edit.value) : edit;
  };
  const next = intent === "bring" ? brought(fields.text ?? "") : await changed();
  if (!next.ok) return answer(next.problems.map(problemText).join("; "));
  await storePlan(circuit.id, next.value, token);
  return answer(null);
}

function brought(text: string): Parsed<AccessPlan> {
  const input = parsedJson(text);
  return input === undefined
    ? refused([{ code: "unreadable", path: "", message: "this is not valid JSON" }])
    : parsePlan(input);
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Access steps: ${loaderData?.title ?? "circuit"} · Airway` },
];

export default function Way({ loaderData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main id="main" className="mx-auto grid w-full max-w-7xl grow content-start gap-4 p-5">
        <header>
          <p className="text-base">
            <Link to={`/shelf/${loaderData.shelfId}`} className="underline">
              {loaderData.title}
            </Link>
          </p>
          <h1 className="text-2xl font-bold">Access steps</h1>
        </header>
        {loaderData.own ? (
          <AccessPlanEditor page={loaderData} own={loaderData.own} />
        ) : (
          <AccessPlanTemplates page={loaderData} />
        )}
      </main>
    </div>
  );
}
