import { createContext, useContext, useEffect, useState } from "react";
import { useRevalidator } from "react-router";

/** What the server pushed about a job last. */
interface Live {
  /** The number of its last change; 0 before the first push. */
  readonly version: number;
  /** Its probe page as of that change, where that was pushed along. */
  readonly page: unknown;
  /** Who else looks at it. */
  readonly others: readonly string[];
}

const nothing: Live = { version: 0, page: null, others: [] };
const LiveContext = createContext<Live>(nothing);

/** The job as the server last pushed it. */
export const useLiveJob = (): Live => useContext(LiveContext);

const isNames = (value: unknown): value is readonly string[] =>
  Array.isArray(value) && value.every((name) => typeof name === "string");

/** A push as the server sends it; the page does without the schemas (decision 31). */
function pushed(event: MessageEvent): Partial<Live> & { readonly version: number } {
  const { version, page = null, others } = JSON.parse(String(event.data)) as Record<string, unknown>;
  return { version: Number(version), page, ...(isNames(others) ? { others } : {}) };
}

interface LiveJobProviderProps {
  /** The job's address: `/jobs/4`. */
  readonly address: string;
  /** Whether this is the probe page: the server then pushes the new page, not only that something changed. */
  readonly isProbe: boolean;
  readonly children: React.ReactNode;
}

/** Connects a job's pages to the server's pushes, while the window is visible. */
export function LiveJobProvider({ address, isProbe, children }: LiveJobProviderProps) {
  const { revalidate } = useRevalidator();
  const [live, setLive] = useState(nothing);
  useEffect(() => {
    let source: EventSource | null = null;
    const connect = (): void => {
      source?.close();
      source = null;
      if (document.visibilityState !== "visible") return;
      source = new EventSource(`${address}/live${isProbe ? "?page=probe" : ""}`);
      const take = (event: MessageEvent): void => setLive((before) => ({ ...before, ...pushed(event) }));
      source.addEventListener("change", take);
      source.addEventListener("who", take);
      // After a restore the job may be an older copy, with fewer changes than this page has seen.
      source.addEventListener("replaced", (event) => {
        take(event);
        void revalidate();
      });
    };
    connect();
    document.addEventListener("visibilitychange", connect);
    return () => {
      document.removeEventListener("visibilitychange", connect);
      source?.close();
      setLive(nothing);
    };
  }, [address, isProbe, revalidate]);
  return <LiveContext value={live}>{children}</LiveContext>;
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
