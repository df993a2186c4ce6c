import { findPlan } from "@db/repositories/plans.server";
import { data } from "react-router";
import type { Route } from "./+types/wayFile";

/** A vehicle's access plan as a file in the open format, as it was read. */
export async function loader({ params }: Route.LoaderArgs) {
  const stored = await findPlan(params.id);
  if (!stored) throw data("This vehicle has no plan yet.", { status: 404 });
  return new Response(`${JSON.stringify(stored.plan, null, 2)}\n`, {
    headers: {
      "Content-Type": "application/json; charset=utf-8",
      "Content-Disposition": `attachment; filename="${params.id}-way-in.json"`,
      "X-Content-Type-Options": "nosniff",
    },
  });
}
