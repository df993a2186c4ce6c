import { jobViewAt } from "../job/jobView.server";
import { lookaheadView } from "../probe/lookaheadView.server";
import type { Route } from "./+types/plan";

/** The following tests. They are requested when their section is opened, since they take dozens of diagnoses. */
export async function loader({ params, request }: Route.LoaderArgs) {
  return Response.json(lookaheadView(await jobViewAt(params.id, request.signal)), {
    headers: { "Cache-Control": "no-store" },
  });
}
