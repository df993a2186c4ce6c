import { matchesOf } from "@db/repositories/parts.server";
import { readingsOf } from "@db/repositories/readings.server";
import { stageWords } from "@words/stateWords";
import { Outlet, useLocation } from "react-router";
import { jobAt } from "../job/jobView.server";
import { AlsoHere, LiveJobProvider } from "../job/LiveJob";
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

const stepTitles = {
  complaint: "Complaint",
  probe: "Probe",
  verdict: "Verdict",
  work: "Work",
  motor: "Motor",
  parts: "Parts",
  estimate: "Estimate",
  fit: "Repair",
  prove: "Check",
  close: "Close",
} as const;
type Step = keyof typeof stepTitles;
const steps = Object.keys(stepTitles) as Step[];

const stepAt = (pathname: string): Step | undefined => steps.find((step) => pathname.endsWith(`/${step}`));

export const meta: Route.MetaFunction = ({ loaderData, location }) => {
  const step = stepAt(location.pathname);
  return [{ title: `${step ? `${stepTitles[step]} · ` : ""}${loaderData?.title ?? "Job"} · Airway` }];
};

export default function JobPage({ loaderData: job }: Route.ComponentProps) {
  const step = stepAt(useLocation().pathname);
  const done: Readonly<Record<Exclude<Step, "estimate">, boolean>> = {
    complaint: job.heard,
    probe: job.past > 0,
    verdict: job.past > 1,
    work: job.past > 1,
    motor: job.motor,
    parts: job.matched,
    fit: job.past > 1,
    prove: job.past > 2,
    close: job.past > 2,
  };
  // At a desk the probe page fills the window, and its two halves scroll by themselves; every other page scrolls whole.
  const fills = step === "probe" ? "md:h-screen" : "";
  return (
    <LiveJobProvider address={`/jobs/${job.id}`} isProbe={step === "probe"}>
      <div className={`flex min-h-screen max-md:flex-col print:block print:h-auto ${fills}`}>
        <Rail
          steps={steps.flatMap((own) =>
            own === "estimate"
              ? []
              : [{ to: `/jobs/${job.id}/${own}`, title: stepTitles[own], done: done[own] }],
          )}
        />
        <div className="flex min-w-0 grow flex-col">
          <header className="no-print flex flex-wrap items-baseline gap-x-3 px-5 pt-3 max-md:px-3 max-md:pt-1.5">
            <h1 className="text-xl font-bold max-md:text-base">
              {job.title}
              {step && <span className="sr-only">: {stepTitles[step]}</span>}
            </h1>
            <p className="text-base text-soft max-md:hidden">
              job {job.id} · {stageWords[job.stage]} · {job.circuitTitle}
            </p>
            <AlsoHere />
          </header>
          <SetAsideList
            jobId={job.id}
            lines={job.aside}
            first={job.deleted ? "put-back" : job.stage === "closed" ? "reopen" : null}
          />
          <Outlet />
        </div>
      </div>
    </LiveJobProvider>
  );
}
