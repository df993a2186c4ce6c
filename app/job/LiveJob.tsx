import { createContext, useContext, useEffect, useMemo, useState } from "react";

/** What the server pushes about a job: the number of its last change, and who else looks at it. */
interface Live {
  readonly version: number;
  readonly others: readonly string[];
}

const nothing: Live = { version: 0, others: [] };
const LiveContext = createContext<Live>(nothing);

/** The job as the server last pushed it; version 0 before that. */
export const useLiveJob = (): Live => useContext(LiveContext);

/** A push as the server sends it; the page does without the schemas (decision 31). */
function isLive(value: unknown): value is Live {
  if (typeof value !== "object" || value === null) return false;
  const { version, others } = value as Record<string, unknown>;
  return (
    typeof version === "number" && Array.isArray(others) && others.every((name) => typeof name === "string")
  );
}

/** Connects a job's pages to the server's pushes, while the window is visible. */
export function LiveJobProvider({ jobId, children }: { jobId: number; children: React.ReactNode }) {
  const [live, setLive] = useState(nothing);
  useEffect(() => {
    let source: EventSource | null = null;
    const connect = (): void => {
      source?.close();
      source = null;
      if (document.visibilityState !== "visible") return;
      source = new EventSource(`/jobs/${jobId}/live`);
      source.addEventListener("job", ({ data }) => {
        const value: unknown = JSON.parse(String(data));
        if (isLive(value)) setLive(value);
      });
    };
    connect();
    document.addEventListener("visibilitychange", connect);
    return () => {
      document.removeEventListener("visibilitychange", connect);
      source?.close();
      setLive(nothing);
    };
  }, [jobId]);
  return <LiveContext value={useMemo(() => live, [live])}>{children}</LiveContext>;
}

/** Who else looks at the job now. */
export function AlsoHere() {
  const { others } = useLiveJob();
  return (
    <p role="status" className="text-base text-soft empty:hidden">
      {others.length > 0 && `Also here: ${others.join(", ")}`}
    </p>
  );
}
