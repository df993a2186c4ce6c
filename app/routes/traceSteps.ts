import { circuitEditSchema } from "@core/circuit/circuitEdit";
import { parsedJson } from "@core/formats/parsedJson";
import { moveDraft } from "@db/repositories/drafts.server";
import { z } from "zod";
import { queueAnswer } from "../job/intoJob.server";
import { sentForm } from "../shell/sentForm.server";
import { draftAt } from "../trace/draftView.server";
import { takeStep } from "../trace/takeStep.server";
import type { Route } from "./+types/traceSteps";

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("edit"), step: z.uuid(), edit: z.string().max(240_000) }),
  z.object({ intent: z.enum(["undo", "redo"]), step: z.uuid() }),
]);

const answered = (problems: readonly string[]): Response =>
  queueAnswer(problems.length > 0 ? { status: 422, problem: problems.join("\n") } : null);

/** Stores one step of a draft, and answers once it is on disk; the same step sent twice is stored once. */
export async function action({ params, request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  const draft = await draftAt(params.id);
  if (!parsed.success) return answered(["That could not be read. Load the page again."]);
  const sent = parsed.data;
  if (sent.intent !== "edit") {
    await moveDraft(draft.id, sent.intent === "undo" ? -1 : 1, sent.step);
    return answered([]);
  }
  if (draft.taken === sent.step) return answered([]);
  const edit = circuitEditSchema.safeParse(parsedJson(sent.edit));
  if (!edit.success)
    return answered(edit.error.issues.map(({ path, message }) => `${path.join(".")}: ${message}`));
  const refused = await takeStep(draft, { step: "edit", edit: edit.data }, "edit", sent.step);
  return answered(refused?.problems ?? []);
}
