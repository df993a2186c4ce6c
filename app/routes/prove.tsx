import { instrumentsFor, judgeFinding, proofReading } from "@core/proof/proofFinding";
import { repairFailed } from "@db/repositories/jobs.server";
import { addProof, proofsOf } from "@db/repositories/proofs.server";
import { repairName } from "@words/partName";
import { proofStepTitle } from "@words/proofWords";
import { data, Link, redirect } from "react-router";
import { CheckPage } from "../check/CheckPage";
import { checkForm, findingFrom } from "../check/checkForm";
import { checkStep, checkView } from "../check/checkView.server";
import { jobAt } from "../job/jobView.server";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/prove";

export async function loader({ params }: Route.LoaderArgs) {
  const { job, circuit } = await jobAt(params.id);
  const fitted = job.fitted && job.fittedAt ? repairName(circuit, job.fitted) : null;
  return {
    id: job.id,
    closed: job.stage === "closed",
    fitted,
    proof: fitted ? await checkView(job, circuit) : null,
    token: randomId(),
  };
}

export async function action({ params, request }: Route.ActionArgs) {
  const { job, circuit } = await jobAt(params.id);
  const parsed = checkForm.safeParse(Object.fromEntries(await request.formData()));
  if (!parsed.success) throw data("That step cannot be read.", { status: 400 });
  const sent = parsed.data;
  if (!job.fittedAt) throw data("Nothing is fitted yet.", { status: 400 });
  const now = new Date();
  if (sent.intent === "proof") {
    const found = await checkStep(job, circuit, sent.step);
    if (!found) throw data("The proof run has no such step.", { status: 400 });
    const finding = findingFrom(sent);
    if (!finding)
      return data({ problem: `“${sent.seen}” cannot be stored here: a figure like 14.2` }, { status: 400 });
    const { step, bands } = found;
    if (!instrumentsFor(step, bands).includes(finding.by))
      throw data(`${proofStepTitle(step)} is not proven by ${finding.by}.`, { status: 400 });
    await addProof({
      id: sent.token,
      jobId: job.id,
      step: step.id,
      finding,
      judged: judgeFinding(step, finding, bands),
      takenAt: now,
    });
    return {};
  }
  const run = await proofsOf(job.id, job.fittedAt);
  if (!run.some(({ judged }) => judged !== "right"))
    throw data("No step failed: what was fitted may still hold.", { status: 400 });
  // What passed tells of the vehicle as much as what failed.
  const readings = await Promise.all(
    run.map(async ({ id, step, finding }) => {
      const own = await checkStep(job, circuit, step);
      const reading = own && proofReading(own.step, finding, own.bands);
      return reading ? [{ id: `proof-${id}`, jobId: job.id, reading, takenAt: now }] : [];
    }),
  );
  await repairFailed(job.id, readings.flat(), now);
  return redirect(`/jobs/${job.id}/probe`);
}

export default function Prove({ loaderData }: Route.ComponentProps) {
  const { id, closed, fitted, proof, token } = loaderData;
  if (!fitted || !proof)
    return (
      <main id="main" className="p-5">
        <p className="sheet-card max-w-xl p-5">
          Nothing is fitted yet. The proof run starts once the <Link to={`/jobs/${id}/verdict`}>verdict</Link>{" "}
          says what was fitted.
        </p>
      </main>
    );
  return <CheckPage id={id} closed={closed} fitted={fitted} proof={proof} token={token} />;
}
