import { useMemo } from "react";
import { data, useRouteLoaderData } from "react-router";
import { BenchPage } from "../components/BenchPage";
import { useSharedJob } from "../components/useSharedJob";
import { takeEntry } from "../entries/takeEntry.server";
import { EntriesProvider } from "../entries/useEntries";
import { foresee } from "../foresight.server";
import { jobViewAt } from "../jobView.server";
import { probeView } from "../probeView.server";
import type { loader as rootLoader } from "../root";
import type { Route } from "./+types/probe";
import type { loader as benchLoader } from "./bench";

export async function loader({ params }: Route.LoaderArgs) {
  const view = await jobViewAt(params.id);
  const page = probeView(view);
  void foresee(view);
  return page;
}

/** Without scripts the forms are posted as they stand; with them they go through the queue. */
export async function action({ params, request }: Route.ActionArgs) {
  const taken = await takeEntry(params.id, await request.formData());
  return data(taken, { status: taken.problem === undefined ? 200 : 400 });
}

export default function Probe({ loaderData }: Route.ComponentProps) {
  const bench = useRouteLoaderData<typeof benchLoader>("routes/bench");
  const lettersOn = useRouteLoaderData<typeof rootLoader>("root")?.keys ?? true;
  const { evidence } = loaderData;
  const standing = useMemo(() => evidence.filter(({ struck }) => !struck).map(({ id }) => id), [evidence]);
  useSharedJob(loaderData.id, loaderData.version);
  if (!bench) return null;
  return (
    <EntriesProvider jobId={loaderData.id} token={loaderData.token} standing={standing}>
      <BenchPage bench={bench} job={loaderData} lettersOn={lettersOn} />
    </EntriesProvider>
  );
}
