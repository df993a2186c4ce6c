import { seenReadingsOf } from "@db/repositories/seenJobs.server";
import { seenJobAt } from "../seen/takeSeenEntry.server";
import type { Route } from "./+types/seenCaseFile";

/** A job without a diagram as an `airway-case` file without a circuit. */
export async function loader({ params }: Route.LoaderArgs) {
  const job = await seenJobAt(params.id);
  const readings = (await seenReadingsOf(job.id)).flatMap(({ reading, struckAt }) =>
    struckAt ? [] : [reading],
  );
  const file = { format: "airway-case", version: 1, id: `no-diagram-${job.id}`, seen: job.seen, readings };
  return new Response(`${JSON.stringify(file, null, 2)}\n`, {
    headers: {
      "Content-Type": "application/json; charset=utf-8",
      "Content-Disposition": `attachment; filename="no-diagram-${job.id}.airway-case.json"`,
      "Cache-Control": "no-store",
    },
  });
}
