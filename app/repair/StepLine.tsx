import type { SortCount } from "@core/access/sortCount";
import { minutesText } from "@core/units/wording";
import { useState } from "react";
import { useFetcher } from "react-router";
import { randomId } from "../text/randomId";
import { Details } from "../ui/Details";
import { RepairLine, StepCautions } from "./RepairLine";
import type { RepairData } from "./repairView.server";
import { ScrewCounts, TickButton, UntickButton } from "./TickButton";

type Step = RepairData["steps"][number];

interface StepLineProps {
  readonly step: Step;
  readonly number: number;
  readonly next: boolean;
  readonly counts: readonly SortCount[];
  readonly onCount: (sort: string, count: number) => void;
}

/** One step of the removal: what comes off, the tool, its screws, its cautions, its notes. */
export function StepLine({ step, number, next, counts, onCount }: StepLineProps) {
  const [noting, setNoting] = useState(false);
  const { tick } = step;
  return (
    <RepairLine
      id={step.id}
      number={number}
      title={step.title}
      done={tick !== null}
      next={next}
      beside={<span className="figures text-base font-normal text-soft">{minutesText(step.minutes)}</span>}
      controls={
        <>
          <button
            type="button"
            className="min-h-11 px-1 text-base text-soft underline"
            aria-expanded={noting}
            aria-label={`add a note to ${step.title}`}
            onClick={() => setNoting(!noting)}
          >
            note
          </button>
          {tick ? (
            <>
              <span className="text-base">
                <b>removed</b> {tick.time}
                {counts.length > 0 || tick.screws > 0 ? `, ${tick.screws} in the tray` : ""}
                {tick.minutes === null ? "" : `, took ${minutesText(tick.minutes)}`}
                {tick.reason && <span className="text-soft">, before its turn: {tick.reason}</span>}
              </span>
              <UntickButton id={tick.id} />
            </>
          ) : (
            <>
              <ScrewCounts label={`Screws removed: ${step.title}`} counts={counts} onCount={onCount} />
              <TickButton step={step.id} way="in" counts={counts} waits={step.waits}>
                Removed<span className="sr-only">: {step.title}</span>
              </TickButton>
            </>
          )}
        </>
      }
    >
      <p className="text-base text-soft">{[...step.fasteners, ...step.tools, ...step.detail].join(" · ")}</p>
      {!tick && <StepCautions cautions={step.cautions} />}
      <StepNotes step={step} open={noting} onDone={() => setNoting(false)} />
    </RepairLine>
  );
}

interface StepNotesProps {
  readonly step: Step;
  readonly open: boolean;
  readonly onDone: () => void;
}

/** The notes on a step, and where its minutes come from. */
function StepNotes({ step, open, onDone }: StepNotesProps) {
  const fetcher = useFetcher();
  const standing = step.notes.filter(({ struck }) => !struck);
  const { learnt } = step;
  return (
    <div className="text-base">
      {standing.map(({ id, words }) => (
        <p key={id} className="flex items-center gap-2">
          <span className="border-l-4 border-feed pl-2">{words}</span>
          <fetcher.Form method="post">
            <input type="hidden" name="id" value={id} />
            <input type="hidden" name="struck" value="yes" />
            <button
              type="submit"
              name="intent"
              value="strike-note"
              className="min-h-11 px-1 text-soft underline"
              aria-label={`delete the note ${words}`}
            >
              delete{" "}
            </button>
          </fetcher.Form>
        </p>
      ))}
      {open && (
        <div className="grid gap-2 pb-2">
          <fetcher.Form method="post" className="flex flex-wrap items-end gap-2" onSubmit={onDone}>
            <input type="hidden" name="token" value={randomId()} />
            <input type="hidden" name="step" value={step.id} />
            <label className="grid grow gap-1 text-soft">
              Note for the next person, kept with this vehicle model
              <input name="words" required maxLength={500} className="field w-full text-ink" />
            </label>
            <button type="submit" name="intent" value="note" className="btn">
              Save note
            </button>
          </fetcher.Form>
          {learnt && (
            <div className="text-soft">
              {learnt.minutes.toFixed(1)} min expected: the planned time at this shop's pace counts as 3 jobs,
              together with {learnt.measured} measured.
              <Details>{learnt.sum}</Details>
            </div>
          )}
        </div>
      )}
    </div>
  );
}
