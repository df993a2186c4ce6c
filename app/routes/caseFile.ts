import { activeReadings, jobViewAt } from "../job/jobView.server";
import type { Route } from "./+types/caseFile";

/** A job as an airway-case: its complete circuit, and the active readings. */
export async function loader({ params }: Route.LoaderArgs) {
  const view = await jobViewAt(params.id);
  const { job, circuit } = view;
  const file = {
    format: "airway-case",
    version: 1,
    id: `job-${job.id}`,
    circuit,
    school: job.school,
    readings: activeReadings(view),
    ...(view.repairs.length > 0 ? { repairs: view.repairs } : {}),
  };
  return new Response(`${JSON.stringify(file, null, 2)}\n`, {
    headers: {
      "Content-Type": "application/json; charset=utf-8",
      "Content-Disposition": `attachment; filename="job-${job.id}.json"`,
      "X-Content-Type-Options": "nosniff",
    },
  });
}
