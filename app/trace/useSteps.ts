import { useCallback, useEffect, useState } from "react";
import { useRevalidator } from "react-router";
import { theQueue, useQueue } from "../entries/browserQueue";
import { randomId } from "../text/randomId";

/**
 * Sends a draft's steps through the browser's queue, one after another: an undo sent while a change is on its way would take
 * back the wrong one. While the server is away they wait, a reload included, and each is sent under its own id, so that none is
 * taken twice; leaving the page with some of them unsent warns.
 */
export function useSteps(draftId: string) {
  const { revalidate } = useRevalidator();
  const { waiting, away, refused } = useQueue();
  const [loading, setLoading] = useState(0);
  const to = `/trace/${draftId}/steps`;
  const own = waiting.filter((entry) => entry.to === to).length;
  const send = useCallback(
    (fields: Record<string, string>): void => {
      const id = randomId();
      theQueue().enter({ id, to, fields: { ...fields, step: id }, words: "a change of the circuit" });
    },
    [to],
  );
  // What an earlier page left unsent goes now.
  useEffect(() => void theQueue().flush(), []);
  useEffect(() => {
    let answered = theQueue().snapshot();
    return theQueue().subscribe(() => {
      const now = theQueue().snapshot();
      const stored = now.stored !== answered.stored && now.shown?.to === to;
      const refusedNow = now.refused !== answered.refused && now.refused?.to === to;
      answered = now;
      if (!stored && !refusedNow) return;
      setLoading((count) => count + 1);
      void revalidate().finally(() => setLoading((count) => count - 1));
    });
  }, [to, revalidate]);
  useEffect(() => {
    if (own === 0) return;
    const warn = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [own]);
  return {
    send,
    waiting: own + loading,
    away: away && own > 0,
    problems: refused?.to === to ? refused.problem.split("\n") : [],
  };
}
