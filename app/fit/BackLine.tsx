import type { FitData } from "./fitView.server";
import { ScrewCount, TickButton, UntickButton } from "./TickButton";

interface BackLineProps {
  readonly step: FitData["back"][number];
  readonly number: number;
  readonly next: boolean;
  readonly screws: number;
  readonly onScrews: (screws: number) => void;
}

/** One step of the way back: how it goes in, and what the tray calls before it closes. */
export function BackLine({ step, number, next, screws, onScrews }: BackLineProps) {
  const { tick, calls } = step;
  return (
    <li
      data-step={step.id}
      className={`grid gap-x-3 border-t border-rule py-1.5 sm:grid-cols-[1fr_auto] ${next ? "border-l-4 border-l-feed pl-2" : "pl-3"}`}
    >
      <div className="min-w-0">
        <p className={tick ? "text-soft" : "font-semibold"}>
          <span className="figures">{number}.</span> {step.title}
        </p>
        {!tick && (
          <ul className="text-base text-soft">
            {step.how.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        )}
        {!tick &&
          step.cautions.map((words) => (
            <p key={words} className="border-l-4 border-danger pl-2 text-base">
              {words}
            </p>
          ))}
        {!tick &&
          (next || step.closes) &&
          calls.map((words) => (
            <p
              key={words}
              role="alert"
              className="border-l-4 border-danger bg-bench p-1 pl-2 text-base font-semibold"
            >
              Before this closes: {words}
            </p>
          ))}
      </div>
      <div className="flex flex-wrap items-center justify-end gap-2">
        {tick ? (
          <>
            <span className="text-base">
              <b>{step.id === "test" ? "tested" : "on"}</b> {tick.time}
              {tick.screws > 0 ? `, ${tick.screws} from the tray` : ""}
            </span>
            <UntickButton id={tick.id} />
          </>
        ) : (
          <>
            {step.screws > 0 && (
              <ScrewCount label={`screws into ${step.title}`} value={screws} onChange={onScrews} />
            )}
            {step.off ? (
              <TickButton step={step.id} way="back" screws={screws}>
                {step.id === "test" ? "tested" : "on"}
                <span className="sr-only">: {step.title}</span>
              </TickButton>
            ) : (
              <span className="text-base text-soft">still on</span>
            )}
          </>
        )}
      </div>
    </li>
  );
}
