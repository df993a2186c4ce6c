import { useCallback, useMemo, useState } from "react";
import type { LitCell } from "../../sheet/PathBoard";
import type { ShownSetup } from "../../sheet/shownSetup";
import { useAnswer } from "./useAnswer";

const noPath: ReadonlySet<string> = new Set();

/** The path through a cell of the board, lit while its setting is shown. */
export function useLitPath(jobId: number, setup: ShownSetup, setSetup: (setup: ShownSetup) => void) {
  const [lit, setLit] = useState<LitCell | null>(null);
  const shown = lit?.setting === setup.setting ? lit : null;
  const query = shown && new URLSearchParams({ setting: shown.setting, piece: shown.id });
  const { answer, current } = useAnswer<{ path: string[] }>(query ? `/jobs/${jobId}/path?${query}` : null);
  const path = useMemo(
    () => (shown ? new Set([shown.part, ...((current && answer?.path) || [])]) : noPath),
    [shown, answer, current],
  );
  const light = useCallback(
    (cell: LitCell): void => {
      setLit(cell);
      setSetup({ ...setup, setting: cell.setting, key: "run" });
    },
    [setup, setSetup],
  );
  return { lit, path, light };
}
