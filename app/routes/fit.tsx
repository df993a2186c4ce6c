import { stepIdSchema } from "@core/access/plan";
import { preferences } from "@core/access/route";
import { type PlaceSign, placeSigns } from "@core/access/whereIsIt";
import { addPlanNote, deletePlanNote, findPlan } from "@db/repositories/plans.server";
import { setRepair } from "@db/repositories/repairs.server";
import { data, redirect } from "react-router";
import { z } from "zod";
import { useSharedJob } from "../entries/useSharedJob";
import { intoJob } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { beginPlan } from "../repair/beginAccessPlan.server";
import { NoPlan } from "../repair/NoPlan";
import { RepairPage } from "../repair/RepairPage";
import { repairPageView } from "../repair/repairView.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import type { Route } from "./+types/fit";

const token = z.uuid();
const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("choose"), prefer: z.enum(preferences), targets: z.string().max(400) }),
  z.object({
    intent: z.literal("note"),
    token,
    step: stepIdSchema,
    words: z.string().trim().min(1).max(500),
  }),
  z.object({ intent: z.literal("strike-note"), id: token, struck: z.enum(["yes", "no"]) }),
  z.object({ intent: z.literal("begin"), template: z.string().max(40) }),
]);

export async function loader({ params, request }: Route.LoaderArgs) {
  const { job, circuit, version } = await jobAt(params.id);
  const signs = new URL(request.url).searchParams
    .getAll("sign")
    .filter((id): id is PlaceSign => placeSigns.some((own) => own.id === id));
  return { ...(await repairPageView(job, circuit, signs)), version };
}

export async function action({ params, request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const { job, circuit } = await jobAt(params.id);
  const parsed = form.safeParse(fields);
  if (!parsed.success) throw data("That cannot be read.", { status: 400 });
  const sent = parsed.data;
  if (sent.intent === "begin") {
    await beginPlan(circuit, sent.template);
    return redirect(`/shelf/${circuit.id}/way`);
  }
  const stored = await findPlan(circuit.id);
  if (!stored) throw data("This vehicle has no access plan yet.", { status: 409 });
  const { plan } = stored;
  switch (sent.intent) {
    case "choose": {
      const targets = sent.targets.split(" ").filter((id) => Object.hasOwn(plan.targets, id));
      const address = `/jobs/${job.id}/fit`;
      const refused = await intoJob(
        { jobId: job.id, address, fields, words: "the parts to remove", at: new Date() },
        () => setRepair(job.id, { targets, prefer: sent.prefer }),
      );
      return refused ? redirect(address) : { done: true };
    }
    case "note":
      await addPlanNote(circuit.id, {
        id: sent.token,
        step: sent.step,
        words: sent.words,
        takenAt: new Date(),
      });
      return { done: true };
    case "strike-note":
      await deletePlanNote(circuit.id, sent.id, sent.struck === "yes" ? new Date() : null);
      return { done: true };
  }
}

export default function FitPage({ loaderData }: Route.ComponentProps) {
  const { id, fit, shelfId, version } = loaderData;
  useSharedJob(version);
  if (!fit) return <NoPlan page={loaderData} />;
  return <RepairPage key={id} jobId={id} shelfId={shelfId} fit={fit} where={loaderData.where} />;
}
