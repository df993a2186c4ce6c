import { proofReading } from "@core/proof/proofFinding";
import { proofPhases } from "@core/proof/proofRun";
import { repairFailed } from "@db/repositories/jobs.server";
import { proofsOf } from "@db/repositories/proofs.server";
import { activeWorks, roundOf, worksOf } from "@db/repositories/works.server";
import { repairName } from "@words/partName";
import { workText } from "@words/workWords";
import { data, Link, redirect } from "react-router";
import { CheckPage } from "../check/CheckPage";
import { checkStep, checkView } from "../check/checkView.server";
import { takeFinding, takeRest } from "../check/takeFinding.server";
import { useSharedJob } from "../entries/useSharedJob";
import { intoJob } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/prove";

export async function loader({ params }: Route.LoaderArgs) {
  const { job, circuit, version } = await jobAt(params.id);
  const round = await roundOf(job.id);
  const lines = activeWorks(await worksOf(job.id)).filter(
    (own) => own.round === round && own.state === "done",
  );
  const done = lines.map((line) => workText(circuit, line)).join(", ");
  const fitted = job.fittedAt ? done || repairName(circuit, job.fitted ?? []) : null;
  return {
    id: job.id,
    version,
    closed: job.stage === "closed",
    fitted,
    proof: fitted ? await checkView(job, circuit) : null,
    token: randomId(),
  };
}

/**
 * Receives a step from a browser without scripts; every other browser sends it through its queue. `rest` fills a phase
 * with what is expected, `back` returns the job to probing.
 */
export async function action({ params, request }: Route.ActionArgs) {
  const sent = await sentForm(request);
  const phase = proofPhases.find((own) => own === sent.get("phase"));
  if (sent.get("intent") === "rest" && phase) {
    const refused = await takeRest(params.id, phase, textFields(sent));
    return data({ problem: refused?.problem }, { status: refused?.status ?? 200 });
  }
  if (sent.get("intent") !== "back") {
    const refused = await takeFinding(params.id, sent);
    return data({ problem: refused?.problem }, { status: refused?.status ?? 200 });
  }
  const { job, circuit } = await jobAt(params.id);
  const now = new Date();
  const run = job.fittedAt ? await proofsOf(job.id, job.fittedAt) : [];
  if (job.stage === "proof-due" && !run.some(({ judged }) => judged !== "right"))
    throw data("No step failed, so there is nothing to go back for.", { status: 400 });
  // A step that passed says as much about the vehicle as one that failed.
  const readings = await Promise.all(
    run.map(async ({ id, step, finding }) => {
      const own = await checkStep(job, circuit, step);
      const reading = own && proofReading(own.step, finding, own.bands);
      return reading ? [{ id: `proof-${id}`, jobId: job.id, reading, takenAt: now }] : [];
    }),
  );
  const refused = await intoJob(
    {
      jobId: job.id,
      address: `/jobs/${job.id}/prove`,
      fields: textFields(sent),
      words: "the repair did not hold; go back to probing",
      at: now,
    },
    () => repairFailed(job.id, readings.flat(), now),
  );
  return redirect(`/jobs/${job.id}/${refused ? "prove" : "probe"}`);
}

export default function Prove({ loaderData }: Route.ComponentProps) {
  const { id, version, closed, fitted, proof, token } = loaderData;
  useSharedJob(version);
  if (!fitted || !proof)
    return (
      <main id="main" className="p-5">
        <p className="sheet-card max-w-xl p-5">
          Nothing has been fitted yet. The final check starts when the{" "}
          <Link to={`/jobs/${id}/verdict`}>verdict</Link> page has been marked as fitted.
        </p>
      </main>
    );
  return <CheckPage id={id} closed={closed} fitted={fitted} proof={proof} token={token} />;
}
