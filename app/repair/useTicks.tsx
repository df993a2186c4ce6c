import { createContext, useContext, useMemo } from "react";
import { useQueued } from "../entries/useQueued";

type Way = "in" | "back";

interface Ticks {
  /** Ticks a step with the screws counted. */
  readonly tick: (step: string, way: Way, screws: number) => void;
  /** Removes a tick. */
  readonly untick: (id: string) => void;
  /** True until a tick of this step, or its undo, is stored and displayed. */
  readonly isWaiting: (
    what: { readonly step: string; readonly way: Way } | { readonly id: string },
  ) => boolean;
}

const TicksContext = createContext<Ticks>({ tick: () => {}, untick: () => {}, isWaiting: () => false });
export const useTicks = (): Ticks => useContext(TicksContext);

interface TicksProviderProps {
  readonly jobId: number;
  readonly children: React.ReactNode;
}

/** A repair's connection to the server: its ticks go through the queue that loses nothing. */
export function TicksProvider({ jobId, children }: TicksProviderProps) {
  const { send, unsent, pending, away, problems } = useQueued(`/jobs/${jobId}/ticks`);
  const ticks = useMemo(
    (): Ticks => ({
      tick: (step, way, screws) =>
        send({ intent: "tick", step, way, screws: String(screws) }, `${step} ticked`),
      untick: (id) => send({ intent: "untick", id }, "a step undone"),
      isWaiting: (what) =>
        pending.some(({ fields }) =>
          "id" in what ? fields.id === what.id : fields.step === what.step && fields.way === what.way,
        ),
    }),
    [send, pending],
  );
  return (
    <TicksContext value={ticks}>
      {away && (
        <p role="status" className="border-l-4 border-feed pl-3 text-base">
          The server does not answer.{" "}
          {unsent.length === 1 ? "One step is waiting" : `${unsent.length} steps are waiting`} on this device
          and will be sent when the server is back.
        </p>
      )}
      {problems.map((problem) => (
        <p key={problem} role="alert" className="border-l-4 border-danger pl-3">
          {problem}
        </p>
      ))}
      {children}
    </TicksContext>
  );
}
