import { useCallback, useEffect, useRef, useState } from "react";
import { useRevalidator } from "react-router";
import { randomId } from "../text/randomId";

const retryMilliseconds = 1500;

/** What a draft answered to a step: taken, or refused with why; null where no answer came. */
async function post(draftId: string, fields: Record<string, string>): Promise<readonly string[] | null> {
  try {
    const answer = await fetch(`/trace/${draftId}/steps`, {
      method: "POST",
      body: new URLSearchParams(fields),
    });
    if (answer.status >= 500) return null;
    if (answer.status === 404) return ["That draft is not there any more: it may be on the shelf already."];
    return ((await answer.json()) as { problems: readonly string[] }).problems;
  } catch {
    return null;
  }
}

/**
 * Sends a draft's steps one after another: an undo sent while a change is on its way would take back the wrong one.
 * While the server is away they wait and are sent again, each under its own id, so that none is taken twice;
 * leaving the page with some of them unsent warns.
 */
export function useSteps(draftId: string) {
  const { revalidate } = useRevalidator();
  const [waiting, setWaiting] = useState(0);
  const [away, setAway] = useState(false);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const last = useRef(Promise.resolve());
  const send = useCallback(
    (fields: Record<string, string>): void => {
      const step = { ...fields, step: randomId() };
      setWaiting((count) => count + 1);
      const sendUntilAnswered = async (): Promise<void> => {
        let refused = await post(draftId, step);
        while (refused === null) {
          setAway(true);
          await new Promise((resolve) => setTimeout(resolve, retryMilliseconds));
          refused = await post(draftId, step);
        }
        setAway(false);
        setProblems(refused);
        await revalidate();
        setWaiting((count) => count - 1);
      };
      last.current = last.current.then(sendUntilAnswered);
    },
    [draftId, revalidate],
  );
  useEffect(() => {
    if (waiting === 0) return;
    const warn = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [waiting]);
  return { send, waiting, away, problems };
}
