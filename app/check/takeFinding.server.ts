import { instrumentsFor, judgeFinding, soundFinding } from "@core/proof/proofFinding";
import { type ProofPhase, proofSteps } from "@core/proof/proofRun";
import { addProof, proofsOf } from "@db/repositories/proofs.server";
import { proofStepTitle } from "@words/proofWords";
import { madeAt } from "../entries/madeAt.server";
import { intoJob, type Refused } from "../job/intoJob.server";
import { jobAt } from "../job/jobView.server";
import { textFields } from "../text/formText";
import { randomId } from "../text/randomId";
import { findingForm, findingFrom } from "./checkForm";
import { checkStep, findingText } from "./checkView.server";

/**
 * Stores the result of one step of the final check, and resolves once it is on disk.
 * @returns why it was refused, or null
 */
export async function takeFinding(jobId: string | undefined, sentForm: FormData): Promise<Refused | null> {
  const { job, circuit } = await jobAt(jobId);
  const fields = textFields(sentForm);
  const parsed = findingForm.safeParse(fields);
  if (!parsed.success) return { status: 422, problem: "That step cannot be read: load the page again." };
  const sent = parsed.data;
  const found = await checkStep(job, circuit, sent.step);
  if (!found) return { status: 422, problem: "The final check has no such step." };
  const finding = findingFrom(sent);
  if (!finding)
    return { status: 422, problem: `“${sent.seen}” cannot be stored here. Enter a figure such as 14.2.` };
  const { step, bands } = found;
  if (!instrumentsFor(step, bands).includes(finding.by))
    return { status: 422, problem: `${proofStepTitle(step)} cannot be checked with ${finding.by}.` };
  const at = madeAt(sentForm);
  return intoJob(
    {
      jobId: job.id,
      address: `/jobs/${job.id}/checks`,
      fields,
      words: `${proofStepTitle(step)}: ${findingText(finding)}`,
      at,
    },
    () =>
      addProof({
        id: sent.token,
        jobId: job.id,
        step: step.id,
        finding,
        judged: judgeFinding(step, finding, bands),
        takenAt: at,
      }),
  );
}

/**
 * Stores every step of a phase that has no result yet as what a sound vehicle shows, by hand, ear and eye; what was
 * entered stays.
 * @returns why it was refused, or null
 */
export async function takeRest(
  jobId: string | undefined,
  phase: ProofPhase,
  fields: Readonly<Record<string, string>>,
): Promise<Refused | null> {
  const { job, circuit } = await jobAt(jobId);
  const found = job.fittedAt ? await proofsOf(job.id, job.fittedAt) : [];
  const done = new Set(found.map(({ step }) => step));
  const at = new Date();
  for (const step of proofSteps(circuit)) {
    if (step.phase !== phase || done.has(step.id)) continue;
    const refused = await intoJob(
      { jobId: job.id, address: `/jobs/${job.id}/prove`, fields, words: "the rest is as expected", at },
      () =>
        addProof({
          id: randomId(),
          jobId: job.id,
          step: step.id,
          finding: soundFinding(step),
          judged: "right",
          takenAt: at,
        }),
    );
    if (refused) return refused;
  }
  return null;
}
