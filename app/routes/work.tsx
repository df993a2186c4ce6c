import { oldPartStates } from "@core/diagnose/history/failedRepair";
import { partsRepaired } from "@core/workList/workLine";
import { setOldPart } from "@db/repositories/fittings.server";
import { partsFitted } from "@db/repositories/jobs.server";
import { shopTerms } from "@db/repositories/settings.server";
import { addWork, changeWork, setWorkState, strikeWork, worksOf } from "@db/repositories/works.server";
import { oldPartWords, workName, workText } from "@words/workWords";
import { data, redirect } from "react-router";
import { z } from "zod";
import { intoJob, type WriteToJob } from "../job/intoJob.server";
import { jobAt, jobViewAt, presentRound } from "../job/jobView.server";
import { verdictThen } from "../job/verdictThen.server";
import { wrongPartAddress } from "../parts/jobMatches.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import { randomId } from "../text/randomId";
import { WorkPage } from "../workList/WorkPage";
import { readWorkForm } from "../workList/workForm";
import { proposedEntry, workView } from "../workList/workView.server";
import type { Route } from "./+types/work";

const form = z.object({
  intent: z.enum(["add", "add-all", "change", "done", "planned", "delete", "restore", "finish", "old-part"]),
  id: z.string().max(120).optional(),
  token: z.string().max(60).optional(),
});
const oldPartForm = z.object({
  part: z.string().min(1).max(32),
  round: z.coerce.number().int().min(1).max(20),
  state: z.union([z.enum(oldPartStates), z.literal("").transform(() => null)]),
});

export const loader = ({ params }: Route.LoaderArgs) => workView(params.id);

export async function action({ params, request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const parsed = form.safeParse(fields);
  if (!parsed.success) throw data("That entry could not be read. Load the page again.", { status: 400 });
  const { intent, id, token } = parsed.data;
  const { job, circuit } = await jobAt(params.id);
  const now = new Date();
  const address = `/jobs/${job.id}/work`;
  const answer = async (words: string, write: WriteToJob) => {
    const refused = await intoJob({ jobId: job.id, address, fields, words, at: now }, write);
    return data({ problem: refused?.problem ?? null, id: null }, { status: refused?.status ?? 200 });
  };
  if (intent === "old-part") {
    const old = oldPartForm.safeParse(fields);
    if (!old.success) throw data("That answer could not be read. Load the page again.", { status: 400 });
    const { part, round, state } = old.data;
    const words = `old ${workName(circuit, { part, what: part })}: ${oldPartWords[state ?? "unknown"]}`;
    return answer(words, () => setOldPart(job.id, round, part, state));
  }
  if (intent === "finish") {
    const view = await jobViewAt(params.id);
    const lines = view.works.filter(({ round }) => round === presentRound(view));
    if (lines.length === 0)
      return data(
        { problem: "There is no work on the list yet. Add a line first.", id: null },
        { status: 422 },
      );
    const parts = partsRepaired(lines);
    const wrong = await wrongPartAddress(job, circuit, parts);
    if (wrong) return redirect(wrong);
    const then = verdictThen(view, parts);
    const refused = await intoJob(
      { jobId: job.id, address, fields, words: "all work on the list is done", at: now },
      () => partsFitted(job.id, parts, then, now),
    );
    return redirect(refused ? address : `/jobs/${job.id}/prove`);
  }
  if (intent === "add-all") {
    for (const [place, proposal] of (await workView(params.id)).proposals.entries()) {
      const line = {
        ...proposedEntry(proposal),
        id: `${token ?? randomId()}-${proposal.key}`,
        state: "planned",
      } as const;
      const answered = await answer(`work: ${workText(circuit, line)}`, () =>
        addWork(job.id, line, new Date(now.getTime() + place)),
      );
      if (answered.data.problem) return answered;
    }
    return data({ problem: null, id: null });
  }
  if (intent === "add" || intent === "change") {
    const { currency } = await shopTerms();
    const known = new Set([...circuit.parts, ...circuit.connectors, ...circuit.wires].map((own) => own.id));
    const nameOf = (part: string) => (known.has(part) ? workName(circuit, { part, what: part }) : null);
    const read = readWorkForm(fields, nameOf, currency);
    if ("problem" in read)
      return data({ problem: read.problem, id: intent === "add" ? null : (id ?? null) }, { status: 422 });
    const state = fields.state === "done" ? "done" : "planned";
    const words = `work: ${workText(circuit, read.entry)}`;
    const line = { ...read.entry, id: intent === "add" ? (token ?? randomId()) : (id ?? ""), state } as const;
    return answer(words, () => (intent === "add" ? addWork(job.id, line, now) : changeWork(job.id, line)));
  }
  const line = (await worksOf(job.id)).find((own) => own.id === id);
  if (!line) throw data("There is no such line of work. Load the page again.", { status: 404 });
  const words = `work: ${workText(circuit, line)}`;
  if (intent === "delete") return answer(`${words}, deleted`, () => strikeWork(job.id, line.id, now));
  if (intent === "restore") return answer(`${words}, restored`, () => strikeWork(job.id, line.id, null));
  return answer(words, () => setWorkState(job.id, line.id, intent));
}

export default function Work({ loaderData, actionData }: Route.ComponentProps) {
  return (
    <WorkPage
      work={loaderData}
      problem={actionData?.problem ? { text: actionData.problem, id: actionData.id } : null}
    />
  );
}
