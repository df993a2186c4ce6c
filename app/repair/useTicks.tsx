import type { SortCount } from "@core/access/sortCount";
import { screwsIn, type TrayNote } from "@core/access/tray";
import { trayNoteText } from "@words/trayWords";
import { createContext, useContext, useMemo } from "react";
import { useQueued } from "../entries/useQueued";

type Way = "in" | "back";

interface Ticks {
  /** Ticks a step with the screws counted, and why it comes before another if it does. */
  readonly tick: (tick: {
    readonly step: string;
    readonly way: Way;
    readonly counts: readonly SortCount[];
    readonly reason?: string;
  }) => void;
  /** Says what became of a screw. */
  readonly note: (note: TrayNote & { readonly words: string }) => void;
  /** Removes such a note. */
  readonly deleteNote: (id: string) => void;
  /** Removes a tick. */
  readonly untick: (id: string) => void;
  /** True until a tick of this step, or its undo, is stored and displayed. */
  readonly isWaiting: (
    what: { readonly step: string; readonly way: Way } | { readonly id: string },
  ) => boolean;
  /** Ticks that wait on this device while the server is away. */
  readonly waitingHere: number;
  readonly problems: readonly string[];
}

const TicksContext = createContext<Ticks>({
  tick: () => {},
  note: () => {},
  deleteNote: () => {},
  untick: () => {},
  isWaiting: () => false,
  waitingHere: 0,
  problems: [],
});
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
      tick: ({ step, way, counts, reason }) =>
        send(
          {
            intent: "tick",
            step,
            way,
            screws: String(screwsIn(counts)),
            counts: JSON.stringify(counts),
            ...(reason ? { reason } : {}),
          },
          `${step} ticked`,
        ),
      note: (note) => send({ intent: "tray", ...note, count: String(note.count) }, trayNoteText(note)),
      deleteNote: (id) => send({ intent: "tray-delete", id }, "a note about a screw deleted"),
      untick: (id) => send({ intent: "untick", id }, "a step undone"),
      isWaiting: (what) =>
        pending.some(({ fields }) =>
          "id" in what ? fields.id === what.id : fields.step === what.step && fields.way === what.way,
        ),
      waitingHere: away ? unsent.length : 0,
      problems,
    }),
    [send, pending, away, unsent, problems],
  );
  return <TicksContext value={ticks}>{children}</TicksContext>;
}

/** What keeps ticks from being stored: a server that is away, or a refusal. */
export function TickTrouble() {
  const { waitingHere, problems } = useTicks();
  return (
    <>
      {waitingHere > 0 && (
        <p role="status" className="border-l-4 border-feed pl-3 text-base">
          The server does not answer.{" "}
          {waitingHere === 1 ? "One step is waiting" : `${waitingHere} steps are waiting`} on this device and
          will be sent when the server is back.
        </p>
      )}
      {problems.map((problem) => (
        <p key={problem} role="alert" className="border-l-4 border-danger pl-3">
          {problem}
        </p>
      ))}
    </>
  );
}
