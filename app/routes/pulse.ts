import { jobVersion } from "@db/repositories/jobVersion.server";
import { jobAt } from "../jobView.server";
import type { Route } from "./+types/pulse";

/** A short text that changes with every reading or note entered or struck: another window asks for it every second. */
export async function loader({ params }: Route.LoaderArgs) {
  const { job } = await jobAt(params.id);
  return new Response(await jobVersion(job.id), {
    headers: { "Content-Type": "text/plain", "Cache-Control": "no-store" },
  });
}
