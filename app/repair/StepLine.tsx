import { minutesText } from "@core/units/wording";
import { useState } from "react";
import { useFetcher } from "react-router";
import { randomId } from "../text/randomId";
import { RepairLine, StepCautions } from "./RepairLine";
import type { RepairData } from "./repairView.server";
import { ScrewCount, TickButton, UntickButton } from "./TickButton";

type Step = RepairData["steps"][number];

interface StepLineProps {
  readonly step: Step;
  readonly number: number;
  readonly next: boolean;
  readonly screws: number;
  readonly onScrews: (screws: number) => void;
}

/** One step of the way in: what comes off, with what, its screws counted, its caution where it belongs, its notes. */
export function StepLine({ step, number, next, screws, onScrews }: StepLineProps) {
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
            aria-label={`note on ${step.title}`}
            onClick={() => setNoting(!noting)}
          >
            note
          </button>
          {tick ? (
            <>
              <span className="text-base">
                <b>off</b> {tick.time}
                {step.screws > 0 || tick.screws > 0 ? `, ${tick.screws} in the tray` : ""}
                {tick.minutes === null ? "" : `, took ${minutesText(tick.minutes)}`}
              </span>
              <UntickButton id={tick.id} />
            </>
          ) : (
            <>
              {step.screws > 0 && (
                <ScrewCount label={`screws out of ${step.title}`} value={screws} onChange={onScrews} />
              )}
              <TickButton step={step.id} way="in" screws={screws}>
                off<span className="sr-only">: {step.title}</span>
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

/** What is noted of a step, and where its minutes come from. */
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
              aria-label={`strike the note ${words}`}
            >
              strike
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
              For the next person; it stays with this model of vehicle
              <input name="words" required maxLength={500} className="field w-full text-ink" />
            </label>
            <button type="submit" name="intent" value="note" className="btn">
              Note it
            </button>
          </fetcher.Form>
          {learnt && (
            <p className="text-soft">
              {learnt.minutes.toFixed(1)} min = <span className="figures">{learnt.sum}</span>: the plan's at
              this shop's pace counts for 3 jobs, beside {learnt.measured} measured.
            </p>
          )}
        </div>
      )}
    </div>
  );
}
