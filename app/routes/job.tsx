import { matchesOf } from "@db/repositories/parts.server";
import { readingsOf } from "@db/repositories/readings.server";
import { stageWords } from "@words/stateWords";
import { Outlet } from "react-router";
import { jobAt } from "../job/jobView.server";
import { SetAsideList } from "../job/SetAsideList";
import { setAsideView } from "../job/setAsideView.server";
import { Rail } from "../shell/Rail";
import type { Route } from "./+types/job";

export async function loader({ params }: Route.LoaderArgs) {
  const { job, circuit } = await jobAt(params.id);
  const [stored, matches, aside] = await Promise.all([
    readingsOf(job.id),
    matchesOf(job.id),
    setAsideView(job),
  ]);
  const standing = stored.filter(({ struckAt }) => !struckAt);
  const past = { probing: 0, "part-awaited": 1, "proof-due": 2, closed: 3 }[job.stage];
  return {
    id: job.id,
    title: `${job.vehicle.model}, ${job.vehicle.label}`,
    words: job.words,
    stage: job.stage,
    circuitTitle: circuit.title,
    motor: standing.some(({ reading }) => reading.test === "ripple" || reading.test === "amps"),
    matched: matches.some(({ newNumber }) => newNumber !== null),
    heard: standing.some(({ reading }) => reading.heard),
    past,
    aside,
    deleted: job.deletedAt !== null,
  };
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.title ?? "Job"} · Airway` },
];

export default function JobPage({ loaderData: job }: Route.ComponentProps) {
  const at = (step: string): string => `/jobs/${job.id}/${step}`;
  return (
    <div className="flex min-h-screen max-md:flex-col md:h-screen print:block print:h-auto">
      <Rail
        steps={[
          { to: at("complaint"), title: "Complaint", done: job.heard },
          { to: at("probe"), title: "Probe", done: job.past > 0 },
          { to: at("verdict"), title: "Verdict", done: job.past > 1 },
          { to: at("motor"), title: "Motor", done: job.motor },
          { to: at("parts"), title: "Parts", done: job.matched },
          { to: at("fit"), title: "Repair", done: job.past > 1 },
          { to: at("prove"), title: "Check", done: job.past > 2 },
          { to: at("close"), title: "Close", done: job.past > 2 },
        ]}
      />
      <div className="flex min-w-0 grow flex-col md:overflow-y-auto">
        <header className="no-print flex flex-wrap items-baseline gap-x-3 px-5 pt-3 max-md:px-3 max-md:pt-1.5">
          <h1 className="text-xl font-bold max-md:text-base">{job.title}</h1>
          <p className="text-base text-soft max-md:hidden">
            job {job.id} · {stageWords[job.stage]} · {job.circuitTitle}
          </p>
        </header>
        <SetAsideList
          jobId={job.id}
          lines={job.aside}
          first={job.deleted ? "put-back" : job.stage === "closed" ? "reopen" : null}
        />
        <Outlet />
      </div>
    </div>
  );
}
