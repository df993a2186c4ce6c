import { closeJob } from "@db/repositories/closures.server";
import { jobRefusal } from "@db/repositories/jobGate.server";
import { openComeback } from "@db/repositories/jobs.server";
import { CalendarPlus, FileText, Printer } from "lucide-react";
import { data, Form, Link, redirect } from "react-router";
import { z } from "zod";
import { CloseForm } from "../close/CloseForm";
import { closeView } from "../close/closeView.server";
import { closureFrom } from "../close/closureFrom.server";
import { faultSheet } from "../close/faultSheet.server";
import { CustomerCard, JobCard } from "../close/JobCard";
import { DraftOfCircuit } from "../job/DraftOfCircuit";
import { intoJob, type WriteToJob } from "../job/intoJob.server";
import { jobAt, jobViewAt } from "../job/jobView.server";
import { sentForm } from "../shell/sentForm.server";
import { textFields } from "../text/formText";
import { randomId } from "../text/randomId";
import type { Route } from "./+types/close";

const form = z.discriminatedUnion("intent", [
  z.looseObject({ intent: z.literal("close") }),
  z.object({ intent: z.literal("comeback"), token: z.uuid(), words: z.string().trim().max(500).default("") }),
]);

export async function loader({ params }: Route.LoaderArgs) {
  const card = await closeView(params.id);
  const { circuit } = await jobAt(params.id);
  const sheet = card.closure ? await faultSheet(await jobViewAt(params.id), card.closure.fault) : null;
  return { card, sheet, token: randomId(), wiringAssumed: circuit.wiring === "assumed" };
}

export async function action({ params, request }: Route.ActionArgs) {
  const fields = textFields(await sentForm(request));
  const { job } = await jobAt(params.id);
  const here = `/jobs/${job.id}/close`;
  const into = (words: string, write: WriteToJob) =>
    intoJob({ jobId: job.id, address: here, fields, words, at: new Date() }, write);
  const parsed = form.safeParse(fields);
  if (!parsed.success)
    return data({ problem: "the form could not be read; load the page again" }, { status: 400 });
  if (parsed.data.intent === "comeback") {
    const { token, words } = parsed.data;
    const opened = await openComeback(job, token, words, new Date());
    const refusal = "refusal" in opened ? opened.refusal : null;
    await into(`it came back: ${words}`, () => Promise.resolve(refusal));
    return redirect("refusal" in opened ? here : `/jobs/${opened.id}/complaint`);
  }
  const refusal = await jobRefusal(job.id, ["proof-due"], null);
  if (refusal) {
    await into(`closed: ${fields.found ?? ""}`, () => Promise.resolve(refusal));
    return redirect(here);
  }
  const made = await closureFrom(params.id, fields);
  if ("problem" in made) return data({ problem: made.problem }, { status: 400 });
  await into(`closed: ${made.closure.closure.found}`, () => closeJob(job.id, made.closure));
  return redirect(here);
}

export default function Close({ loaderData, actionData }: Route.ComponentProps) {
  const { card, sheet, token, wiringAssumed } = loaderData;
  const problem = actionData?.problem ?? null;
  const closed = card.stage === "closed";
  return (
    <main id="main" className="grid w-full max-w-3xl gap-5 p-5">
      {!closed && <CloseForm card={card} problem={problem} />}
      <CardFiles card={card} />
      {closed && wiringAssumed && <DraftOfCircuit jobId={card.id} />}
      {closed && (
        <Form method="post" className="no-print flex flex-wrap items-end gap-3">
          <input type="hidden" name="intent" value="comeback" />
          <input type="hidden" name="token" value={token} />
          <label className="grid grow gap-0.5 text-base text-soft">
            Comeback: what the customer says now
            <input name="words" maxLength={500} className="field w-full text-ink" />
          </label>
          <button type="submit" className="btn">
            Open a comeback job
          </button>
        </Form>
      )}
      {closed && problem && (
        <p role="alert" className="text-danger">
          {problem}
        </p>
      )}
      {closed && <CustomerCard card={card} />}
      <JobCard
        card={card}
        sheet={
          sheet && (
            <img
              src={`data:image/svg+xml;utf8,${encodeURIComponent(sheet.svg)}`}
              alt={`The circuit on ${sheet.setting} with the fault marked: ${card.closure?.faultWords ?? ""}`}
              className="max-h-96 w-full border border-rule object-contain"
            />
          )
        }
      />
    </main>
  );
}

interface CardFilesProps {
  readonly card: Route.ComponentProps["loaderData"]["card"];
}

/** The card as files. */
function CardFiles({ card }: CardFilesProps) {
  return (
    <div className="no-print flex flex-wrap gap-3">
      <button type="button" className="btn" onClick={() => window.print()}>
        <Printer aria-hidden="true" className="size-5" />
        Print the card
      </button>
      <a href={`/jobs/${card.id}/card/pdf`} download className="btn">
        <FileText aria-hidden="true" className="size-5" />
        Save both pages as PDF
      </a>
      {card.closure?.followUpOn && (
        <a href={`/jobs/${card.id}/card/ics`} download className="btn">
          <CalendarPlus aria-hidden="true" className="size-5" />
          Follow-up on {card.closure.followUp} to calendar
        </a>
      )}
      <a href={`/jobs/${card.id}/case`} download className="btn">
        Export job
      </a>
      <Link to={`/records/vehicle/${card.vehicleId}`} className="btn">
        This vehicle's history
      </Link>
      <Link to={`/jobs/${card.id}/trail`} className="btn">
        History of this job
      </Link>
      <Form method="post" action="/records" className="contents">
        <input type="hidden" name="job" value={card.id} />
        <button type="submit" name="intent" value={card.deleted ? "put-back" : "delete"} className="btn">
          {card.deleted ? "Restore the job" : "Delete the job"}
        </button>
      </Form>
    </div>
  );
}
