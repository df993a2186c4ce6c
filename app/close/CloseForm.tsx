import { percent } from "@core/units/wording";
import { screwsText } from "@words/trayWords";
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
  ["unsaid", "not said"],
] as const;

/** What is written down when a job closes: what was found, the root cause, temporary repairs, and advice. */
export function CloseForm({ card, problem }: CloseFormProps) {
  const busy = useNavigation().state !== "idle";
  const proven = card.worked && card.proof.whole === "proven";
  const screwsLeft = screwsText(card.screwsOpen);
  const [cause, setCause] = useState<string>(card.verdict.killer ? "found" : "unsaid");
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
      {screwsLeft !== "" && (
        <p role="alert" className="border-l-4 border-danger pl-3">
          {screwsLeft} not accounted for. A loose screw ends up in the wheel.{" "}
          <Link to={`/jobs/${card.id}/fit`}>Say on Repair what became of them</Link>, then close the job.
        </p>
      )}
      <WorkDone card={card} />
      {card.asked.length > 0 && <Findings asked={card.asked} />}
      <CauseFound cause={cause} setCause={setCause} card={card} />
      <div className="grid gap-2 sm:grid-cols-[1fr_12rem]">
        <label className="grid gap-0.5 text-base text-soft">
          Temporary repair, such as an oiled bearing (leave empty if there is none)
          <input
            name="stopgap"
            maxLength={300}
            className="field w-full text-ink"
            defaultValue={card.stopgaps}
          />
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
      <LearnFrom />
      {problem && (
        <p role="alert" className="text-danger">
          Not closed: {problem}.
        </p>
      )}
      <button
        className="btn btn-main justify-self-start"
        type="submit"
        disabled={!proven || screwsLeft !== "" || busy}
      >
        Close the job
      </button>
    </Form>
  );
}

/** What was found in everything that was worked on; nothing is chosen beforehand. */
const Findings = ({ asked }: { asked: CloseData["asked"] }) => (
  <fieldset className="grid gap-2">
    <legend className="font-bold">What was found in each line of work</legend>
    {asked.map(({ name, round, words, temporary, choices }) => (
      <label key={name} className="grid gap-0.5 text-base">
        <span>
          {words}
          {round > 1 && <span className="text-soft">, round {round}</span>}
          {temporary && <span className="text-soft">; nothing is learned from a temporary repair</span>}
        </span>
        <select name={name} defaultValue="" className="field w-full max-w-xl">
          <option value="">not said</option>
          {choices.map(({ family, words: title, proved }) => (
            <option key={family} value={family}>
              {title}
              {proved ? " (fits the proof)" : " (not proved)"}
            </option>
          ))}
          <option value="sound">it was good, not the cause</option>
          <option value="unknown">something outside this circuit</option>
        </select>
      </label>
    ))}
  </fieldset>
);

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
        defaultValue={card.listed}
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

/** Odds of a comeback from which the page says that the cure is not shown (judgement, no source). */
const doubtfulOdds = 0.3;

/** What the customer was advised. */
function Advice({ months, plain, advised, card }: AdviceProps) {
  const isDoubtful = plain >= doubtfulOdds && !card.temporary;
  return (
    <p className="text-base">
      {isDoubtful && "The check is passed, but the readings do not show that this work cured the fault. "}
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

/** Whether the shop's statistics count this job. */
const LearnFrom = () => (
  <label className="flex min-h-11 items-center gap-2">
    <input type="checkbox" name="learn" value="yes" defaultChecked className="size-5 shrink-0" />
    Let the shop learn from it: only from what is proved, never from a temporary repair
  </label>
);
