import { useCallback } from "react";
import { useQueued } from "../entries/useQueued";
import { randomId } from "../text/randomId";

/**
 * Sends a draft's steps through the browser's queue, in order, because an undo sent while a change is on its way would
 * undo the wrong one.
 */
export function useSteps(draftId: string) {
  const { send: enter, pending, away, problems } = useQueued(`/trace/${draftId}/steps`);
  const send = useCallback(
    (fields: Record<string, string>): void => {
      const id = randomId();
      enter({ ...fields, step: id }, "a change to the circuit", id);
    },
    [enter],
  );
  return { send, waiting: pending.length, away, problems };
}
