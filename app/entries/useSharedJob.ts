import { useEffect, useSyncExternalStore } from "react";
import { useRevalidator } from "react-router";
import { useLiveJob } from "../job/LiveJob";
import { subscribe, theQueue } from "./browserQueue";

/** Milliseconds to wait for the answer to an own entry, which brings the page along. */
const pauseMilliseconds = 150;

/** Whether an own entry is on its way. */
const useSending = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => theQueue().snapshot().waiting.length > 0 && !theQueue().snapshot().away,
    () => false,
  );

/**
 * Shows what somebody else changed in the job of this page.
 * @param version of the job when this page was loaded
 * @param show takes the new page, if the server pushes it; otherwise the page is loaded again
 */
export function useSharedJob(version: number, show?: (page: unknown) => void): void {
  const { version: latest, page } = useLiveJob();
  const { revalidate, state } = useRevalidator();
  const sending = useSending();
  const isBehind = latest > version && state === "idle" && !sending;
  useEffect(() => {
    if (!isBehind) return;
    if (page && show) {
      show(page);
      return;
    }
    const timer = setTimeout(() => void revalidate(), pauseMilliseconds);
    return () => clearTimeout(timer);
  }, [isBehind, page, show, revalidate]);
}
