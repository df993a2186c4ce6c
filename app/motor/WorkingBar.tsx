import type { Working } from "./useRecordingWorker";

interface WorkingBarProps {
  readonly working: Working;
  readonly onStop: () => void;
  /** Why the last reading came to nothing; empty where it did not. */
  readonly problem: string;
}

/** How far the reading is, with a way to stop it; and why it came to nothing. */
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
