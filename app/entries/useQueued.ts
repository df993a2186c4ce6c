import { startTransition, useCallback, useEffect, useState } from "react";
import { useRevalidator } from "react-router";
import { randomId } from "../text/randomId";
import { theQueue, useQueue } from "./browserQueue";
import type { Entry } from "./entryQueue";

/**
 * What a page sends to one address through the browser's queue, one entry after another. While the server is away,
 * entries wait, even across a reload. Each has an id of its own, so none is stored twice. Leaving the page with unsent
 * entries warns. The page is loaded again once one is stored or refused.
 */
export function useQueued(to: string) {
  const { revalidate } = useRevalidator();
  const { waiting, away, refused } = useQueue();
  const [settling, setSettling] = useState<readonly Entry[]>([]);
  const unsent = waiting.filter((entry) => entry.to === to);
  const send = useCallback(
    (fields: Entry["fields"], words: string, id = randomId(), file?: string): void =>
      theQueue().enter({ id, to, fields, words, ...(file === undefined ? {} : { file }) }),
    [to],
  );
  // Sends what an earlier page left unsent.
  useEffect(() => void theQueue().flush(), []);
  useEffect(() => {
    let answered = theQueue().snapshot();
    return theQueue().subscribe(() => {
      const now = theQueue().snapshot();
      const stored = now.stored !== answered.stored && now.shown?.to === to;
      const refusedNow = now.refused !== answered.refused && now.refused?.to === to;
      const gone = answered.waiting.filter((entry) => entry.to === to && !now.waiting.includes(entry));
      answered = now;
      if (!stored && !refusedNow) return;
      setSettling((kept) => [...kept, ...gone]);
      // The router shows a loaded page in a transition: in one of its own, the entry is dropped with it, not before.
      const drop = (): void => setSettling((kept) => kept.filter((entry) => !gone.includes(entry)));
      void revalidate().finally(() => startTransition(drop));
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
    /** The unsent entries, after those that are answered but not yet shown. */
    pending: [...settling, ...unsent],
    away: away && any,
    /** The last entry, if it was refused. */
    refused: refused?.to === to ? refused : null,
    problems: refused?.to === to ? refused.problem.split("\n") : [],
  };
}
