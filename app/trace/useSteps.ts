import { useCallback, useEffect, useRef } from "react";
import { useQueued } from "../entries/useQueued";
import { randomId } from "../text/randomId";

/**
 * Sends a draft's steps through the browser's queue, in order, because an undo sent while a change is on its way would
 * undo the wrong one.
 */
export function useSteps(draftId: string) {
  const { send: enter, pending, away, problems } = useQueued(`/trace/${draftId}/steps`);
  const onTheWay = useRef<(typeof pending)[number] | undefined>(undefined);
  useEffect(() => {
    onTheWay.current = pending.at(-1);
  });
  const send = useCallback(
    (fields: Record<string, string>): void => {
      // A cell that is left before the server answered would send its change a second time.
      if (fields.edit !== undefined && fields.edit === onTheWay.current?.fields.edit) return;
      const id = randomId();
      enter({ ...fields, step: id }, "a change to the circuit", id);
    },
    [enter],
  );
  return { send, waiting: pending.length, away, problems };
}
