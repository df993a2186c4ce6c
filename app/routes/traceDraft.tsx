import { traceQuestionIds } from "@core/trace/traceAnswer";
import { circuitNameSchema } from "@core/trace/traceCircuit";
import { dropDraft, nameDraft } from "@db/repositories/drafts.server";
import { redirect } from "react-router";
import { z } from "zod";
import { circuitFrom, storeImport } from "../shelf/importCircuit.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { draftAt, stateOf } from "../trace/draftView.server";
import { answerFrom } from "../trace/questionForm";
import { TracePage } from "../trace/TracePage";
import { type Refused, takeStep } from "../trace/takeStep.server";
import { tracedDraft } from "../trace/tracedDraft.server";
import type { Route } from "./+types/traceDraft";

export async function loader({ params }: Route.LoaderArgs) {
  return tracedDraft(await draftAt(params.id));
}

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("answer"), question: z.enum(traceQuestionIds as [string, ...string[]]) }),
  z.object({ intent: z.literal("wires"), text: z.string().min(1).max(240_000) }),
  z.object({
    intent: z.literal("store"),
    id: z.string().trim(),
    title: z.string().trim().min(1),
    anyway: z.literal("yes").optional(),
  }),
]);

export async function action({ params, request }: Route.ActionArgs): Promise<Refused | undefined> {
  const fields = await sentForm(request);
  const draft = await draftAt(params.id);
  const parsed = form.safeParse(Object.fromEntries(fields));
  if (!parsed.success) return { of: "", problems: ["That could not be read. Load the page again."] };
  const sent = parsed.data;
  switch (sent.intent) {
    case "answer": {
      const { answers } = stateOf(draft);
      const question = traceQuestionIds.find((id) => id === sent.question);
      if (!answers || !question) return { of: sent.question, problems: ["This draft has no questions."] };
      const answer = answerFrom(question, answers, (name) => {
        const given = fields.get(name);
        return typeof given === "string" ? given : "";
      });
      return takeStep(draft, { step: "answer", question, answer }, question);
    }
    case "wires": {
      const read = circuitFrom(sent.text, stateOf(draft).circuit);
      if ("problems" in read) return { of: "wires", problems: read.problems };
      return takeStep(draft, { step: "edit", edit: { do: "wires", wires: read.value.wires } }, "wires");
    }
    case "store": {
      const { steering } = draft.name;
      const name = circuitNameSchema.safeParse({
        id: sent.id,
        title: sent.title,
        ...(steering ? { steering } : {}),
      });
      if (!name.success)
        return {
          of: "store",
          problems: name.error.issues.map(({ path, message }) => `${path.join(".")}: ${message}`),
        };
      await nameDraft(draft.id, name.data);
      const stored = await storeImport(stateOf({ ...draft, name: name.data }).circuit, sent.anyway === "yes");
      if ("problems" in stored) return { of: "store", problems: stored.problems };
      await dropDraft(draft.id);
      throw redirect(`/shelf/${name.data.id}`);
    }
  }
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.name.title ?? "Trace"}, being traced · Airway` },
];

export default function TraceDraft({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <TracePage draft={loaderData} refused={actionData} />
    </div>
  );
}
