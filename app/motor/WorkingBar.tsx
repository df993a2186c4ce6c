import type { Working } from "./useRecordingWorker";

interface WorkingBarProps {
  readonly working: Working;
  readonly onStop: () => void;
  /** Why the last reading failed; empty if it did not. */
  readonly problem: string;
}

/** The progress of a reading, with a way to stop it; and why it failed. */
export function WorkingBar({ working, onStop, problem }: WorkingBarProps) {
  const percent = Math.round(100 * (working?.share ?? 0));
  return (
    <>
      {working && (
        <div className="flex items-center gap-3" role="status">
          <progress className="h-3 grow" max={100} value={percent} aria-label="Reading" />
          <span className="figures">{percent} %</span>
          <button type="button" className="btn" onClick={onStop}>
            Stop
          </button>
        </div>
      )}
      {problem !== "" && (
        <p role="alert" className="text-danger">
          {problem}
        </p>
      )}
    </>
  );
}
