import { benchSums, sumNamed } from "@core/sums/benchSums";
import { startsFrom } from "@core/sums/fromCircuit";
import { listJobs } from "@db/repositories/jobs.server";
import { data } from "react-router";
import { jobViewAt } from "../job/jobView.server";
import { Rail } from "../shell/Rail";
import { SumPage } from "../sums/SumPage";
import { SumsNav } from "../sums/SumsNav";
import type { Route } from "./+types/sums";

export const meta: Route.MetaFunction = ({ params }) => [
  { title: `${sumNamed(params.sum ?? "")?.title ?? "Bench sums"} · Airway` },
];

export async function loader({ params, request }: Route.LoaderArgs) {
  const sum = params.sum === undefined ? benchSums[0] : sumNamed(params.sum);
  if (!sum) throw data("There is no such bench sum.", { status: 404 });
  const asked = new URL(request.url).searchParams.get("job");
  const [jobs, view] = await Promise.all([
    listJobs(["probing", "part-awaited", "proof-due"]),
    asked === null || asked === "" ? null : jobViewAt(asked),
  ]);
  return {
    sum: sum.id,
    job: view ? view.job.id : null,
    jobs: jobs.map(({ id, vehicle }) => ({ id, words: `${id}, ${vehicle.label}` })),
    starts: view ? startsFrom(view.engine.netlist) : [],
  };
}

/** The typed figures are in the address; the server is only asked for another sum or another job's values. */
export const shouldRevalidate = ({ currentUrl, nextUrl }: { currentUrl: URL; nextUrl: URL }): boolean =>
  currentUrl.pathname !== nextUrl.pathname ||
  currentUrl.searchParams.get("job") !== nextUrl.searchParams.get("job");

export default function Sums({ loaderData }: Route.ComponentProps) {
  const { job, jobs, starts } = loaderData;
  const sum = sumNamed(loaderData.sum);
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <main
        id="main"
        className="grid w-full min-w-0 grow grid-cols-[minmax(0,1fr)] content-start gap-3 p-5 max-md:p-3"
      >
        <h1 className="text-2xl font-bold">Bench sums</h1>
        <div className="grid gap-5 grid-cols-[minmax(0,1fr)] md:grid-cols-[12.5rem_minmax(0,1fr)]">
          <SumsNav job={job} />
          {sum && <SumPage key={sum.id} sum={sum} job={job} jobs={jobs} starts={starts} />}
        </div>
      </main>
    </div>
  );
}
