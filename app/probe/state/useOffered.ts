import { useCallback, useMemo, useState } from "react";
import { useEntryAnswers } from "../../entries/useEntries";
import type { Probed } from "../probeData";

/** The suggested tests, and the one shown: the first, until another is chosen. */
export function useOffered({ id, looks, token }: Pick<Probed, "id" | "looks" | "token">) {
  const away = useEntryAnswers(id);
  // A test that waits to be stored is not suggested again.
  const tests = useMemo(
    () => (away.length === 0 ? looks : looks.filter(({ look }) => !away.includes(look))),
    [looks, away],
  );
  const [skip, setSkip] = useState({ token, by: 0 });
  const by = skip.token === token ? skip.by : 0;
  const place = tests.length > 0 ? by % tests.length : 0;
  const show = useCallback((at: number) => setSkip({ token, by: at }), [token]);
  return {
    tests,
    offered: tests[place],
    by,
    /** Its position among the tests, if another than the first is shown. */
    position: by > 0 ? `, ${place + 1} of ${tests.length}` : "",
    show,
  };
}

export type Offered = ReturnType<typeof useOffered>;
