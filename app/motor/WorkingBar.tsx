import type { Working } from "./useTraceWorker";

/** How far the reading is, and a way to stop it. */
export function WorkingBar({ working, onStop }: { working: Working; onStop: () => void }) {
  if (!working) return null;
  const percent = Math.round(100 * working.share);
  return (
    <div className="flex items-center gap-3" role="status">
      <progress className="h-3 grow" max={100} value={percent} aria-label="Reading" />
      <span className="figures">{percent} %</span>
      <button type="button" className="btn" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}
