import { practiceKinds, practiceLevels } from "@core/practice/practiceCase";
import { listCircuits } from "@db/repositories/circuits.server";
import { addLearner } from "@db/repositories/practice.server";
import { data, redirect } from "react-router";
import { z } from "zod";
import { beginSampled, beginShared } from "../practice/beginCase.server";
import { learnerLabel, learnerOf } from "../practice/learner.server";
import { PracticeHome } from "../practice/PracticeHome";
import { progressOf } from "../practice/progress.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/practice";

export const meta: Route.MetaFunction = () => [{ title: "Practice bay · Airway" }];

export async function loader({ request }: Route.LoaderArgs) {
  const [{ learner, learners }, circuits] = await Promise.all([learnerOf(request), listCircuits()]);
  return {
    learner,
    learners,
    token: randomId(),
    circuits: circuits.map(({ rowId, title }) => ({ rowId, title })),
    progress: learner === null ? null : await progressOf(learner, new Date()),
  };
}

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("learner"), label: learnerLabel }),
  z.object({
    intent: z.literal("start"),
    learner: learnerLabel,
    token: z.uuid(),
    circuit: z.string().max(80),
    level: z.enum(practiceLevels),
    kind: z.enum(["any", ...practiceKinds]),
  }),
  z.object({ intent: z.literal("file"), learner: learnerLabel, token: z.uuid(), file: z.instanceof(File) }),
]);

const mostBytes = 2_000_000;

export async function action({ request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  if (!parsed.success)
    return data({ problem: parsed.error.issues.map(({ message }) => message).join("; ") }, { status: 400 });
  const asked = parsed.data;
  if (asked.intent === "learner") {
    await addLearner(asked.label, new Date());
    return redirect(`/practice?learner=${encodeURIComponent(asked.label)}`);
  }
  if (asked.intent === "file" && asked.file.size > mostBytes)
    return data({ problem: `${asked.file.name} is too large for a case file.` }, { status: 400 });
  const begun =
    asked.intent === "start"
      ? await beginSampled(asked, { ...asked, kind: asked.kind === "any" ? null : asked.kind })
      : await beginShared(asked, asked.file.name, await asked.file.text());
  if ("problem" in begun) return data(begun, { status: 400 });
  return redirect(`/practice/cases/${begun.id}`);
}

export default function Practice({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <PracticeHome home={loaderData} problem={actionData?.problem ?? null} />
    </div>
  );
}
