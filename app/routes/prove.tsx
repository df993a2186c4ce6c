import { proofReading, proofSteps } from "@core/diagnose/proofRun";
import { airflowSeen } from "@core/predict/reading";
import { reopen } from "@db/repositories/jobs.server";
import { addProof, proofsOf } from "@db/repositories/proofs.server";
import { addReading } from "@db/repositories/readings.server";
import { data, Form, Link, redirect, useFetcher } from "react-router";
import { z } from "zod";
import { airflowWords } from "../components/words";
import { repairName } from "../format/partName";
import { jobAt } from "../jobView.server";
import type { Route } from "./+types/prove";

const form = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("proof"),
    token: z.uuid(),
    step: z.string().max(40),
    seen: z.enum(airflowSeen),
  }),
  z.object({ intent: z.literal("back"), token: z.uuid() }),
]);

export async function loader({ params }: Route.LoaderArgs) {
  const { job, circuit } = await jobAt(params.id);
  const found = new Map((await proofsOf(job.id, job.fittedAt)).map((entry) => [entry.step, entry.seen]));
  return {
    id: job.id,
    stage: job.stage,
    fitted: job.fitted && job.fittedAt ? repairName(circuit, job.fitted) : null,
    steps: proofSteps(circuit).map(({ id, title, expected }) => ({
      id,
      title,
      expected,
      seen: found.get(id) ?? null,
      token: crypto.randomUUID(),
    })),
    token: crypto.randomUUID(),
  };
}

export async function action({ params, request }: Route.ActionArgs) {
  const { job, circuit } = await jobAt(params.id);
  const parsed = form.safeParse(Object.fromEntries(await request.formData()));
  if (!parsed.success) throw data("That step cannot be read.", { status: 400 });
  const entry = parsed.data;
  const steps = proofSteps(circuit);
  const now = new Date();
  if (entry.intent === "proof") {
    const step = steps.find(({ id }) => id === entry.step);
    if (!step) throw data("The proof run has no such step.", { status: 400 });
    await addProof({
      id: entry.token,
      jobId: job.id,
      step: step.id,
      expected: step.expected,
      seen: entry.seen,
      takenAt: now,
    });
    return { stored: true };
  }
  // A failed repair goes back to probing with what it showed as measured evidence.
  const failed = (await proofsOf(job.id, job.fittedAt)).filter(({ expected, seen }) => expected !== seen);
  for (const { id, step: stepId, seen } of failed) {
    const step = steps.find((candidate) => candidate.id === stepId);
    if (step)
      await addReading({ id: `proof-${id}`, jobId: job.id, reading: proofReading(step, seen), takenAt: now });
  }
  await reopen(job.id);
  return redirect(`/jobs/${job.id}/probe`);
}

export default function Prove({ loaderData }: Route.ComponentProps) {
  const { id, steps, fitted, token, stage } = loaderData;
  const waiting = steps.filter(({ seen }) => seen === null).length;
  const failed = steps.filter(({ seen, expected }) => seen !== null && seen !== expected);
  if (!fitted)
    return (
      <main id="main" className="p-5">
        <p className="sheet-card max-w-xl p-5">
          Nothing is fitted yet. The proof run starts once the <Link to={`/jobs/${id}/verdict`}>verdict</Link>{" "}
          says what was fitted.
        </p>
      </main>
    );
  return (
    <main id="main" className="grid w-full max-w-3xl gap-2.5 px-5 py-3">
      <div>
        <h2 className="text-lg font-bold">Every speed, up and down</h2>
        <p className="text-base text-soft">
          Fitted: {fitted}. Before the panels go back: hands out, then key on. Tap what each step does.
        </p>
      </div>
      <p role="status" className="font-semibold">
        {failed.length > 0
          ? `${failed.length} ${failed.length === 1 ? "step" : "steps"} not as expected: ${failed.map(({ title }) => title).join(", ")}.`
          : waiting > 0
            ? `${waiting} to go.`
            : "Every step as expected: the repair is proven."}
      </p>
      <ol className="border-b border-rule">
        {steps.map((step) => (
          <ProofLine key={step.id} step={step} />
        ))}
      </ol>
      {failed.length > 0 && stage !== "closed" && (
        <Form method="post">
          <input type="hidden" name="token" value={token} />
          <button className="btn btn-main" type="submit" name="intent" value="back">
            Back to probing with this
          </button>
        </Form>
      )}
      {failed.length === 0 && waiting === 0 && (
        <Link to={`/jobs/${id}/close`} className="btn btn-main justify-self-start">
          On to closing
        </Link>
      )}
    </main>
  );
}

function ProofLine({ step }: { step: Route.ComponentProps["loaderData"]["steps"][number] }) {
  const fetcher = useFetcher();
  const right = step.seen === step.expected;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-1" data-step={step.id}>
      <span className="w-44 font-semibold">{step.title}</span>
      <span className="w-32 text-base text-soft">expect {airflowWords[step.expected]}</span>
      <fetcher.Form method="post" className="flex gap-1.5">
        <input type="hidden" name="intent" value="proof" />
        <input type="hidden" name="token" value={step.token} />
        <input type="hidden" name="step" value={step.id} />
        {airflowSeen.map((word) => (
          <button
            key={word}
            type="submit"
            name="seen"
            value={word}
            aria-pressed={step.seen === word}
            className="btn min-h-11 px-2.5 text-base aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
          >
            {airflowWords[word]}
          </button>
        ))}
      </fetcher.Form>
      <span className="min-w-20 text-base font-semibold">
        {step.seen === null ? "" : right ? "as expected" : <span className="text-danger">not so</span>}
      </span>
    </li>
  );
}
