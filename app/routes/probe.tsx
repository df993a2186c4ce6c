import { useCallback, useMemo, useState } from "react";
import { data, useRouteLoaderData } from "react-router";
import { takeEntry } from "../entries/takeEntry.server";
import { EntriesProvider } from "../entries/useEntries";
import { useSharedJob } from "../entries/useSharedJob";
import { jobViewAt } from "../job/jobView.server";
import { ProbePage } from "../probe/ProbePage";
import type { Probed, ProbeSheet } from "../probe/probeData";
import { probeView } from "../probe/probeView.server";
import { sentForm } from "../shell/sentForm.server";
import type { Preferences } from "../shell/theme";
import type { Route } from "./+types/probe";

export async function loader({ params, request }: Route.LoaderArgs) {
  return probeView(await jobViewAt(params.id, request.signal));
}

/** Receives the page's forms from a browser without scripts; every other browser sends them through its queue. */
export async function action({ params, request }: Route.ActionArgs) {
  const refused = await takeEntry(params.id, await sentForm(request));
  return data({ problem: refused?.problem }, { status: refused?.status ?? 200 });
}

export default function Probe({ loaderData }: Route.ComponentProps) {
  const bench = useRouteLoaderData<ProbeSheet>("routes/bench");
  const preferences = useRouteLoaderData<Preferences>("root");
  // The page in an entry's answer is shown until the page is loaded again.
  const [answered, setAnswered] = useState({ over: loaderData, page: loaderData });
  const job = answered.over === loaderData ? answered.page : loaderData;
  const show = useCallback(
    (page: unknown) => setAnswered({ over: loaderData, page: page as Probed }),
    [loaderData],
  );
  const { evidence } = job;
  const standing = useMemo(() => evidence.filter(({ struck }) => !struck).map(({ id }) => id), [evidence]);
  useSharedJob(job.version, show);
  if (!bench) return null;
  return (
    <EntriesProvider key={job.id} jobId={job.id} token={job.token} standing={standing} show={show}>
      <ProbePage
        bench={bench}
        job={job}
        lettersOn={preferences?.keys ?? true}
        planned={preferences?.visits ?? true}
      />
    </EntriesProvider>
  );
}
