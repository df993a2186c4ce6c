import { jobVersion } from "@db/repositories/jobVersion.server";
import { jobNumber } from "../job/jobView.server";
import type { Route } from "./+types/pulse";

/** A short text that changes with every reading or note added or deleted; another window polls it every second. */
export async function loader({ params }: Route.LoaderArgs) {
  const version = await jobVersion(jobNumber(params.id));
  return new Response(version, {
    headers: { "Content-Type": "text/plain", "Cache-Control": "no-store" },
  });
}
