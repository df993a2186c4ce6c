import type { SortCount } from "@core/access/sortCount";
import { minutesText } from "@core/units/wording";
import { RepairLine, StepCautions } from "./RepairLine";
import type { RepairData } from "./repairView.server";
import { ScrewCounts, TickButton, UntickButton } from "./TickButton";

interface BackLineProps {
  readonly step: RepairData["back"][number];
  readonly number: number;
  readonly next: boolean;
  readonly counts: readonly SortCount[];
  readonly onCount: (sort: string, count: number) => void;
}

/** What a ticked step is called, and its button. */
const tickWords = {
  undo: ["refitted", "Refitted"],
  adapt: ["done", "Done"],
  test: ["tested", "Tested"],
} as const;

/** One step of the refitting: how to do it, and what the tray reports before it closes. */
export function BackLine({ step, number, next, counts, onCount }: BackLineProps) {
  const { tick, calls } = step;
  const [ticked, button] = tickWords[step.does];
  return (
    <RepairLine
      id={step.id}
      number={number}
      title={step.title}
      done={tick !== null}
      next={next}
      beside={
        step.minutes !== null && (
          <span className="figures text-base font-normal text-soft">{minutesText(step.minutes)}</span>
        )
      }
      controls={
        tick ? (
          <>
            <span className="text-base">
              <b>{ticked}</b> {tick.time}
              {tick.screws > 0 ? `, ${tick.screws} from the tray` : ""}
              {tick.reason && <span className="text-soft">, before its turn: {tick.reason}</span>}
            </span>
            <UntickButton id={tick.id} />
          </>
        ) : (
          <>
            <ScrewCounts label={`Screws refitted: ${step.title}`} counts={counts} onCount={onCount} />
            {step.off ? (
              <TickButton step={step.id} way="back" counts={counts} waits={step.waits}>
                {button}
                <span className="sr-only">: {step.title}</span>
              </TickButton>
            ) : (
              <span className="text-base text-soft">not removed</span>
            )}
          </>
        )
      }
    >
      {!tick && (
        <>
          {step.tools.length > 0 && <p className="text-base text-soft">{step.tools.join(" · ")}</p>}
          <ul className="text-base text-soft">
            {step.how.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
          {step.notes.map((words) => (
            <p key={words} className="border-l-4 border-feed pl-2 text-base">
              {words}
            </p>
          ))}
          <StepCautions cautions={step.cautions} />
          {(next || step.closes) && calls.map((words) => <BeforeClosing key={words} words={words} />)}
        </>
      )}
    </RepairLine>
  );
}

/** What must be done before a panel closes over it. */
const BeforeClosing = ({ words }: { readonly words: string }) => (
  <p role="alert" className="border-l-4 border-danger bg-bench p-1 pl-2 text-base font-semibold">
    Before you close this: {words}
  </p>
);
