import { useEffect } from "react";
import { useRevalidator } from "react-router";

/** Milliseconds between two polls; two windows on one job see each other's readings within two of these. */
const everyMilliseconds = 900;

/**
 * Loads the page again when the job's readings changed elsewhere, while the page is visible.
 * @param version the readings when this page was loaded
 */
export function useSharedJob(jobId: number, version: string): void {
  const { revalidate, state } = useRevalidator();
  useEffect(() => {
    if (state !== "idle") return;
    const stopped = new AbortController();
    const ask = async (): Promise<void> => {
      if (document.visibilityState !== "visible") return;
      try {
        const answer = await fetch(`/jobs/${jobId}/pulse`, { signal: stopped.signal });
        if (answer.ok && (await answer.text()) !== version) await revalidate();
      } catch {
        // The server is away, or the page is being left: the next poll asks again.
      }
    };
    const timer = setInterval(() => void ask(), everyMilliseconds);
    return () => {
      clearInterval(timer);
      stopped.abort();
    };
  }, [jobId, version, revalidate, state]);
}
