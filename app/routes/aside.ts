import { decideAside } from "@db/repositories/setAside.server";
import { data } from "react-router";
import { z } from "zod";
import { jobAt } from "../job/jobView.server";
import { sentForm } from "../shell/sentForm.server";
import type { Route } from "./+types/aside";

const form = z.object({ intent: z.literal("throw-away"), id: z.string().max(64) });

/** Deletes an entry that was kept because the job did not take it. */
export async function action({ params, request }: Route.ActionArgs) {
  const parsed = form.safeParse(Object.fromEntries(await sentForm(request)));
  const { job } = await jobAt(params.id);
  if (!parsed.success) throw data("That cannot be read.", { status: 400 });
  await decideAside(job.id, parsed.data.id, "discarded", new Date());
  return { done: true };
}
