import { RepairLine, StepCautions } from "./RepairLine";
import type { RepairData } from "./repairView.server";
import { ScrewCount, TickButton, UntickButton } from "./TickButton";

interface BackLineProps {
  readonly step: RepairData["back"][number];
  readonly number: number;
  readonly next: boolean;
  readonly screws: number;
  readonly onScrews: (screws: number) => void;
}

/** One step of the refitting: how to do it, and what the tray reports before it closes. */
export function BackLine({ step, number, next, screws, onScrews }: BackLineProps) {
  const { tick, calls } = step;
  return (
    <RepairLine
      id={step.id}
      number={number}
      title={step.title}
      done={tick !== null}
      next={next}
      controls={
        tick ? (
          <>
            <span className="text-base">
              <b>{step.id === "test" ? "tested" : "refitted"}</b> {tick.time}
              {tick.screws > 0 ? `, ${tick.screws} from the tray` : ""}
            </span>
            <UntickButton id={tick.id} />
          </>
        ) : (
          <>
            {step.screws > 0 && (
              <ScrewCount label={`Screws refitted: ${step.title}`} value={screws} onChange={onScrews} />
            )}
            {step.off ? (
              <TickButton step={step.id} way="back" screws={screws}>
                {step.id === "test" ? "Tested" : "Refitted"}
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
