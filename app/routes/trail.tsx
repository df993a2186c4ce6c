import { trailOf } from "@db/repositories/events.server";
import { findPlan } from "@db/repositories/plans.server";
import { Link } from "react-router";
import { jobAt } from "../job/jobView.server";
import { RecordsPage } from "../records/RecordsPage";
import { trailWords } from "../records/trailWords";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import type { Route } from "./+types/trail";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `History of job ${loaderData?.id ?? ""} · Airway` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const { job, circuit } = await jobAt(params.id);
  const zone = shopZone();
  const plan = (await findPlan(circuit.id))?.plan;
  const steps = new Map(plan?.steps.map(({ id, title }) => [id, title]));
  return {
    id: job.id,
    vehicle: `${job.vehicle.model}, ${job.vehicle.label}`,
    lines: (await trailOf(job.id)).map((line) => ({
      id: line.id,
      when: dayText(line.at, zone),
      who: line.who,
      words: trailWords(circuit, line, steps),
    })),
  };
}

export default function Trail({ loaderData }: Route.ComponentProps) {
  const { id, vehicle, lines } = loaderData;
  return (
    <RecordsPage title={`History of job ${id}: ${vehicle}`} width="max-w-4xl">
      <p className="text-base text-soft">
        The database writes this list itself. Nobody can change or delete a line.{" "}
        <Link to={`/jobs/${id}`} className="underline">
          Go to the job
        </Link>
      </p>
      <ol className="divide-y divide-rule border-y border-rule text-base">
        {lines.map((line) => (
          <li key={line.id} className="grid gap-x-4 py-1 sm:grid-cols-[13rem_1fr]">
            <span className="figures text-soft">{line.when}</span>
            <span>
              {line.words}
              {line.who && <span className="text-soft"> ({line.who})</span>}
            </span>
          </li>
        ))}
      </ol>
      {lines.length === 0 && <p className="text-base">No entries: this job is older than the history.</p>}
    </RecordsPage>
  );
}
