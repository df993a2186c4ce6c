import { proofSteps } from "@core/diagnose/proofRun";
import { percent } from "@core/units/wording";
import { closeJob } from "@db/repositories/jobs.server";
import { proofsOf } from "@db/repositories/proofs.server";
import { tracesOf } from "@db/repositories/traces.server";
import { Printer } from "lucide-react";
import { data, Form, Link, redirect } from "react-router";
import { z } from "zod";
import { airflowWords, verdictWords } from "../components/words";
import { dayText } from "../format/clock";
import { repairName } from "../format/partName";
import { diagnosisOf, evidenceLines, jobAt, jobViewAt } from "../jobView.server";
import { TurnSketch } from "../motor/TurnSketch";
import { shopZone } from "../shop.server";
import type { Route } from "./+types/close";

const form = z.object({ found: z.string().trim().min(3, "say in a few words what was found").max(1000) });

export async function loader({ params }: Route.LoaderArgs) {
  const view = await jobViewAt(params.id);
  const { job, circuit } = view;
  const { verdict } = diagnosisOf(view);
  const found = new Map((await proofsOf(job.id, job.fittedAt)).map((entry) => [entry.step, entry]));
  const zone = shopZone();
  const recordings = (await tracesOf(job.id)).filter(({ struckAt }) => !struckAt);
  return {
    id: job.id,
    stage: job.stage,
    vehicle: `${job.vehicle.model}, ${job.vehicle.label}`,
    circuit: circuit.title,
    came: dayText(job.createdAt, zone),
    closed: job.closedAt ? dayText(job.closedAt, zone) : null,
    words: job.words,
    evidence: evidenceLines(view.stored).filter(({ struck }) => !struck),
    verdict: {
      name: repairName(circuit, verdict.replace),
      p: verdict.p,
      state: verdict.state,
      because: verdict.because,
    },
    recordings: recordings.map(({ id, record, takenAt }) => ({
      id,
      name: record.name,
      setting: record.setup.setting,
      when: job.fittedAt && takenAt > job.fittedAt ? "after" : "before",
      humps: record.kind === "humps" ? record.figures : null,
      noise: record.kind === "sound" ? record.figures.likeliest : null,
    })),
    fitted: job.fitted && job.fittedAt ? repairName(circuit, job.fitted) : null,
    found: job.found,
    proof: proofSteps(circuit).map(({ id, title, expected }) => ({
      id,
      title,
      expected,
      seen: found.get(id)?.seen ?? null,
    })),
  };
}

export async function action({ params, request }: Route.ActionArgs) {
  const { job, circuit } = await jobAt(params.id);
  const parsed = form.safeParse(Object.fromEntries(await request.formData()));
  if (!parsed.success)
    return data({ problem: parsed.error.issues[0]?.message ?? "cannot be read" }, { status: 400 });
  const proven = new Map((await proofsOf(job.id, job.fittedAt)).map(({ step, seen }) => [step, seen]));
  if (!job.fittedAt || proofSteps(circuit).some(({ id, expected }) => proven.get(id) !== expected))
    return data(
      { problem: "the proof run is not done: every step must be as expected first" },
      { status: 400 },
    );
  await closeJob(job.id, parsed.data.found, new Date());
  return redirect(`/jobs/${job.id}/close`);
}

export default function Close({ loaderData: card, actionData }: Route.ComponentProps) {
  const proven = card.fitted !== null && card.proof.every(({ seen, expected }) => seen === expected);
  return (
    <main id="main" className="grid w-full max-w-3xl gap-5 p-5">
      {card.stage !== "closed" && (
        <Form method="post" className="no-print grid gap-2">
          {!proven && (
            <p>
              A job closes once it is proven. <Link to={`/jobs/${card.id}/prove`}>To the proof run</Link>
            </p>
          )}
          <label htmlFor="found" className="font-bold">
            What was found and done
          </label>
          <textarea
            id="found"
            name="found"
            rows={2}
            maxLength={1000}
            className="field w-full"
            defaultValue={card.fitted ? `Replaced ${card.fitted}.` : ""}
          />
          {actionData?.problem && (
            <p role="alert" className="text-danger">
              Not closed: {actionData.problem}.
            </p>
          )}
          <button className="btn btn-main justify-self-start" type="submit" disabled={!proven}>
            Close the job
          </button>
        </Form>
      )}
      <JobCard card={card} />
      <div className="no-print flex flex-wrap gap-3">
        <button type="button" className="btn" onClick={() => window.print()}>
          <Printer aria-hidden="true" className="size-5" />
          Print the card
        </button>
        <a href={`/jobs/${card.id}/case`} download className="btn">
          Take the case out
        </a>
      </div>
    </main>
  );
}

function JobCard({ card }: { card: Route.ComponentProps["loaderData"] }) {
  return (
    <article className="sheet-card grid gap-3 p-5 print:border-0 print:p-0" aria-label="Job card">
      <header>
        <h2 className="text-xl font-bold">
          Job {card.id}: {card.vehicle}
        </h2>
        <p className="text-base text-soft">
          {card.circuit} · came {card.came}
          {card.closed ? ` · closed ${card.closed}` : ""}
        </p>
      </header>
      <Row title="Complaint">{card.words || "–"}</Row>
      <Row title="Seen">
        <ol>
          {card.evidence.map((line) => (
            <li key={line.id}>
              <span className="figures">{line.number}.</span> {line.what}
              {line.heard && " (heard)"}: <b>{line.result}</b>
              {line.source && ` (by ${line.source})`}
            </li>
          ))}
        </ol>
      </Row>
      {card.recordings.length > 0 && (
        <Row title="Motor">
          <ul className="grid gap-1">
            {card.recordings.map(({ id, name, setting, when, humps, noise }) => (
              <li key={id}>
                {name}, speed {setting}, {when} the repair:{" "}
                {humps ? <TurnSketch humps={humps} /> : <b>sounds like {noise}</b>}
              </li>
            ))}
          </ul>
        </Row>
      )}
      <Row title="Verdict">
        {card.verdict.name}, {percent(card.verdict.p)} ({verdictWords[card.verdict.state]}).
        <ul className="list-disc pl-5">
          {card.verdict.because.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      </Row>
      <Row title="Fitted">{card.fitted ?? "nothing yet"}</Row>
      {card.found && <Row title="Found and done">{card.found}</Row>}
      <Row title="Proof">
        <table className="w-full text-left">
          <thead>
            <tr>
              <th scope="col">step</th>
              <th scope="col">expected</th>
              <th scope="col">seen</th>
            </tr>
          </thead>
          <tbody>
            {card.proof.map(({ id, title, expected, seen }) => (
              <tr key={id} className="border-t border-rule">
                <td>{title}</td>
                <td>{airflowWords[expected]}</td>
                <td>{seen === null ? "–" : airflowWords[seen]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Row>
    </article>
  );
}

function Row({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="grid gap-x-4 text-base sm:grid-cols-[8rem_1fr]">
      <h3 className="font-semibold text-soft">{title}</h3>
      <div>{children}</div>
    </section>
  );
}
