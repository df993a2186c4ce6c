import { type WorkInFile, type WorkLine, workInFileSchema } from "@core/workList/workLine";
import { activeReadings, jobViewAt } from "../job/jobView.server";
import type { Route } from "./+types/caseFile";

/** A line of work without what only this shop's database knows of it. */
const inFile = (line: WorkLine): WorkInFile => workInFileSchema.strip().parse(line);

/** A job as an airway-case: its complete circuit, the active readings, the work list and the visit before a comeback. */
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
    ...(view.works.length > 0 ? { works: view.works.map(inFile) } : {}),
    ...(view.earlier ? { earlier: view.earlier } : {}),
  };
  return new Response(`${JSON.stringify(file, null, 2)}\n`, {
    headers: {
      "Content-Type": "application/json; charset=utf-8",
      "Content-Disposition": `attachment; filename="job-${job.id}.json"`,
      "X-Content-Type-Options": "nosniff",
    },
  });
}
