import { deleteSeenJob, setSeen } from "@db/repositories/seenJobs.server";
import { Suspense } from "react";
import { Await, data, redirect } from "react-router";
import { z } from "zod";
import { useSharedJob } from "../entries/useSharedJob";
import { LiveJobProvider } from "../job/LiveJob";
import { goOnWithCircuit, goOnWithDiagram } from "../seen/goOnWithCircuit.server";
import { SeenJobPage } from "../seen/SeenJobPage";
import { seenCarFrom } from "../seen/seenCarForm";
import { seenJobView } from "../seen/seenJobView.server";
import { seenJobAt, takeSeenEntry } from "../seen/takeSeenEntry.server";
import { Rail } from "../shell/Rail";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import type { Route } from "./+types/seenJob";

export async function loader({ params, request }: Route.LoaderArgs) {
  const left = (new URL(request.url).searchParams.get("left") ?? "").split(",").map(Number);
  return seenJobView(await seenJobAt(params.id), left);
}

const name = z.string().trim().max(60, "at most 60 characters").default("");
const form = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("delete") }),
  z.object({ intent: z.literal("restore") }),
  z.looseObject({ intent: z.literal("seen") }),
  z.object({ intent: z.literal("go-on"), token: z.uuid(), label: name, model: name }),
  z.object({
    intent: z.literal("diagram"),
    token: z.uuid(),
    circuitId: z.string().max(80),
    label: name,
    model: name,
  }),
]);

/** Receives the page's own forms, and its entries from a browser without scripts. */
export async function action({ params, request }: Route.ActionArgs) {
  const job = await seenJobAt(params.id);
  const sent = await sentForm(request);
  const fields = textFields(sent);
  const parsed = form.safeParse(fields);
  if (!parsed.success) {
    const refused = await takeSeenEntry(params.id, sent);
    return data({ problem: refused?.problem ?? null }, { status: refused?.status ?? 200 });
  }
  switch (parsed.data.intent) {
    case "delete":
      await deleteSeenJob(job.id, new Date());
      return data({ problem: null });
    case "restore":
      await deleteSeenJob(job.id, null);
      return data({ problem: null });
    case "seen": {
      const seen = seenCarFrom(fields);
      if (!seen) return data({ problem: "That could not be read. Load the page again." }, { status: 422 });
      const refusal = await setSeen(job.id, seen);
      return data(
        { problem: refusal ? "This job is deleted, or has its circuit by now." : null },
        { status: refusal ? 422 : 200 },
      );
    }
    case "diagram": {
      const address = await goOnWithDiagram(job, parsed.data, parsed.data.circuitId);
      if (address) return redirect(address);
      return data({ problem: "Choose the circuit of this vehicle from the list." }, { status: 422 });
    }
    case "go-on":
      return redirect(await goOnWithCircuit(job, parsed.data));
  }
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.label || `No diagram ${loaderData?.id ?? ""}`} · Airway` },
];

export default function SeenJobRoute(props: Route.ComponentProps) {
  return (
    <LiveJobProvider address={`/no-diagram/${props.loaderData.id}`} isProbe={false}>
      <SharedSeenJob {...props} />
    </LiveJobProvider>
  );
}

/** The page, which loads again when somebody else changes the job. */
function SharedSeenJob({ loaderData, actionData }: Route.ComponentProps) {
  useSharedJob(loaderData.version);
  return (
    <div className="flex min-h-screen max-md:flex-col">
      <Rail />
      <Suspense fallback={<SeenJobPage view={loaderData} findings={null} problem={null} />}>
        <Await resolve={loaderData.findings}>
          {(findings) => (
            <SeenJobPage view={loaderData} findings={findings} problem={actionData?.problem ?? null} />
          )}
        </Await>
      </Suspense>
    </div>
  );
}
