import { jobViewAt } from "../job/jobView.server";
import { lookaheadView } from "../probe/lookaheadView.server";
import type { Route } from "./+types/plan";

/** The tests to come: asked for when the page's fold is opened, since it weighs dozens of beliefs. */
export async function loader({ params, request }: Route.LoaderArgs) {
  return Response.json(lookaheadView(await jobViewAt(params.id, request.signal)), {
    headers: { "Cache-Control": "no-store" },
  });
}
