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
 * Loads the page again when somebody else changed its job.
 * @param version of the job when this page was loaded
 */
export function useSharedJob(version: number): void {
  const { version: latest } = useLiveJob();
  const { revalidate, state } = useRevalidator();
  const sending = useSending();
  const isBehind = latest > version && state === "idle" && !sending;
  useEffect(() => {
    if (!isBehind) return;
    const timer = setTimeout(() => void revalidate(), pauseMilliseconds);
    return () => clearTimeout(timer);
  }, [isBehind, revalidate]);
}
