import { parsedJson } from "@core/formats/parsedJson";
import { offerKinds } from "@core/money/repairOffer";
import { problemsOf, problemText } from "@core/problem/problem";
import type { JobRefusal } from "@core/records/jobStage";
import { addEstimate, approveEstimate } from "@db/repositories/estimates.server";
import { estimateBodySchema } from "@db/storedColumns";
import { data, redirect } from "react-router";
import { z } from "zod";
import { EstimatePage } from "../estimate/EstimatePage";
import { estimateView, offerBody } from "../estimate/estimateView.server";
import { intoJob } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import type { Route } from "./+types/estimate";

const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("offer"), token: z.uuid(), offer: z.enum(offerKinds) }),
  z.object({
    intent: z.literal("store"),
    token: z.uuid(),
    kind: z.enum(["estimate", "bill"]),
    body: z.string().max(60_000),
  }),
  z.object({
    intent: z.literal("approve"),
    id: z.uuid(),
    by: z.string().trim().min(2, "enter how it was approved, such as at the counter or by phone").max(80),
  }),
]);

export const loader = ({ params }: Route.LoaderArgs) => estimateView(params.id);

const refuse = (problem: string) => data({ problem }, { status: 400 });

export async function action({ params, request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const { job } = await jobAt(params.id);
  const parsed = form.safeParse(fields);
  if (!parsed.success)
    return refuse(parsed.error.issues[0]?.message ?? "That could not be read. Load the page again.");
  const sent = parsed.data;
  const address = `/jobs/${job.id}/estimate`;
  const into = async (words: string, writing: Promise<JobRefusal | null>) => {
    const refused = await intoJob({ jobId: job.id, address, fields, words, at: new Date() }, writing);
    return refused ? redirect(address) : { problem: null };
  };
  switch (sent.intent) {
    case "offer": {
      const body = await offerBody(params.id, sent.offer);
      if (!body) return refuse("That offer no longer exists, because the verdict has changed.");
      return into(
        `estimate: ${body.title}`,
        addEstimate(job.id, { id: sent.token, kind: "estimate", body }, new Date()),
      );
    }
    case "store": {
      const input = parsedJson(sent.body);
      const body = estimateBodySchema.safeParse(input);
      if (!body.success) return refuse(problemsOf(body.error, input).map(problemText).join("; "));
      return into(
        `${sent.kind}: ${body.data.title}`,
        addEstimate(job.id, { id: sent.token, kind: sent.kind, body: body.data }, new Date()),
      );
    }
    case "approve":
      return into(`approved: ${sent.by}`, approveEstimate(job.id, sent.id, sent.by, new Date()));
  }
}

export default function EstimateRoute({ loaderData, actionData }: Route.ComponentProps) {
  return <EstimatePage page={loaderData} problem={actionData?.problem ?? null} />;
}
