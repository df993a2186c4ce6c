import { percent } from "@core/units/wording";
import type { Dispatch, SetStateAction } from "react";
import { useState } from "react";
import { Form, Link, useNavigation } from "react-router";
import type { CloseData } from "./closeView.server";

interface CloseFormProps {
  readonly card: CloseData;
  readonly problem: string | null;
}

const causes = [
  ["found", "found (name it below)"],
  ["not-found", "looked for, not found"],
  ["none", "normal wear"],
] as const;

/** What is written down when a job closes: what was found, the root cause, temporary repairs, and advice. */
export function CloseForm({ card, problem }: CloseFormProps) {
  const busy = useNavigation().state !== "idle";
  const proven = card.fitted !== null && card.proof.whole === "proven";
  const [first] = card.faults;
  const [cause, setCause] = useState<string>(card.verdict.killer ? "found" : "none");
  const [fault, setFault] = useState(first?.family ?? "unknown");
  const { plain, advised, months } = card.odds;
  return (
    <Form method="post" className="no-print grid gap-4">
      <input type="hidden" name="intent" value="close" />
      {!proven && (
        <p>
          A job can be closed once its final check is done.{" "}
          <Link to={`/jobs/${card.id}/prove`}>Go to the final check</Link>
        </p>
      )}
      <WorkDone card={card} />
      <FaultFound fault={fault} setFault={setFault} card={card} />
      <CauseFound cause={cause} setCause={setCause} card={card} />
      <div className="grid gap-2 sm:grid-cols-[1fr_12rem]">
        <label className="grid gap-0.5 text-base text-soft">
          Temporary repair, such as an oiled bearing (leave empty if there is none)
          <input name="stopgap" maxLength={300} className="field w-full text-ink" />
        </label>
        <label className="grid content-end gap-0.5 text-base text-soft">
          Check again on
          <input type="date" name="followUpOn" min={card.today} className="field w-full text-ink" />
        </label>
      </div>
      <label className="grid gap-0.5 text-base text-soft">
        Advice to the customer
        <textarea
          name="advice"
          rows={2}
          maxLength={500}
          className="field w-full text-ink"
          defaultValue={
            card.advised ? `Have the ${card.advised} checked too: it can overheat the new part.` : ""
          }
        />
      </label>
      <Advice months={months} plain={plain} advised={advised} card={card} />
      <LearnFrom fault={fault} />
      {problem && (
        <p role="alert" className="text-danger">
          Not closed: {problem}.
        </p>
      )}
      <button className="btn btn-main justify-self-start" type="submit" disabled={!proven || busy}>
        Close the job
      </button>
    </Form>
  );
}

interface FaultFoundProps {
  readonly fault: string;
  readonly setFault: Dispatch<SetStateAction<string>>;
  readonly card: CloseFormProps["card"];
}

/** Which of the circuit's faults it was. */
function FaultFound({ fault, setFault, card }: FaultFoundProps) {
  return (
    <label className="grid gap-0.5">
      <span className="font-bold">Fault found</span>
      <select
        name="fault"
        value={fault}
        onChange={(event) => setFault(event.target.value)}
        className="field w-full max-w-xl"
      >
        {card.faults.map(({ family, words }) => (
          <option key={family} value={family}>
            {words}
          </option>
        ))}
        <option value="unknown">something outside this circuit</option>
      </select>
    </label>
  );
}

interface CauseFoundProps {
  readonly cause: string;
  readonly setCause: Dispatch<SetStateAction<string>>;
  readonly card: CloseFormProps["card"];
}

/** The root cause. */
function CauseFound({ cause, setCause, card }: CauseFoundProps) {
  return (
    <fieldset className="grid gap-1">
      <legend className="font-bold">Root cause</legend>
      <div className="flex flex-wrap gap-x-5">
        {causes.map(([value, words]) => (
          <label key={value} className="flex min-h-11 items-center gap-2">
            <input
              type="radio"
              name="cause"
              value={value}
              checked={cause === value}
              onChange={() => setCause(value)}
              className="size-5"
            />
            {words}
          </label>
        ))}
      </div>
      {cause === "found" && (
        <label className="grid gap-0.5 text-base text-soft">
          Name of the root cause, such as a tight motor or a wet plug
          <input
            name="causeWords"
            maxLength={300}
            className="field w-full max-w-xl text-ink"
            defaultValue={card.verdict.killer ?? ""}
          />
        </label>
      )}
    </fieldset>
  );
}

interface WorkDoneProps {
  readonly card: CloseFormProps["card"];
}

/** What was fitted and found. */
function WorkDone({ card }: WorkDoneProps) {
  return (
    <div>
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
    </div>
  );
}

interface AdviceProps {
  readonly months: CloseFormProps["card"]["odds"]["months"];
  readonly plain: CloseFormProps["card"]["odds"]["plain"];
  readonly advised: CloseFormProps["card"]["odds"]["advised"];
  readonly card: CloseFormProps["card"];
}

/** What the customer was advised. */
function Advice({ months, plain, advised, card }: AdviceProps) {
  return (
    <p className="text-base">
      Comes back within {months} months: <b>{percent(plain)}</b>
      {advised !== null && card.advised && (
        <>
          ; with {card.advised} done too: <b>{percent(advised)}</b>
        </>
      )}
      . {card.bill ? `${card.bill.kind === "bill" ? "Bill" : "Estimate"}: ${card.bill.total}. ` : ""}
      <Link to={`/jobs/${card.id}/estimate`} className="underline">
        {card.bill ? "Go to the bill" : "Make the bill"}
      </Link>
    </p>
  );
}

interface LearnFromProps {
  readonly fault: string;
}

/** Whether the shop's statistics count this job. */
function LearnFrom({ fault }: LearnFromProps) {
  return (
    <label className="flex min-h-11 items-center gap-2">
      <input
        type="checkbox"
        name="learn"
        value="yes"
        defaultChecked
        disabled={fault === "unknown"}
        className="size-5"
      />
      Let the shop learn from this job (proven, not guessed)
    </label>
  );
}
