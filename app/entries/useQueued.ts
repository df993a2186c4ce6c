import { useCallback, useEffect, useState } from "react";
import { useRevalidator } from "react-router";
import { randomId } from "../text/randomId";
import { theQueue, useQueue } from "./browserQueue";

/**
 * What a page sends to one address through the browser's queue, one after another. While the server is away it waits, a
 * reload included, and each is sent under an id of its own, so that none is taken twice; leaving the page with some of them
 * unsent warns. The page is loaded anew once one is stored or refused.
 */
export function useQueued(to: string) {
  const { revalidate } = useRevalidator();
  const { waiting, away, refused } = useQueue();
  const [loading, setLoading] = useState(0);
  const unsent = waiting.filter((entry) => entry.to === to);
  const send = useCallback(
    (fields: Readonly<Record<string, string>>, words: string, id = randomId()): void =>
      theQueue().enter({ id, to, fields, words }),
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
  const any = unsent.length > 0;
  useEffect(() => {
    if (!any) return;
    const warn = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [any]);
  return {
    send,
    unsent,
    /** How many are unsent, or stored and not yet shown. */
    waiting: unsent.length + loading,
    away: away && any,
    problems: refused?.to === to ? refused.problem.split("\n") : [],
  };
}
