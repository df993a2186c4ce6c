import { useCallback, useMemo, useState } from "react";
import type { SheetState } from "../../sheet/sheetState";
import { isUsual, type ShownSetup, setupQuery } from "../../sheet/shownSetup";
import type { ProbeSheet } from "../probeData";
import { useAnswer } from "./useAnswer";

/** The set-up shown: that of the suggested test, until it is changed by hand. */
export function useShownSetup(
  token: string,
  offeredSetting: string,
): [ShownSetup, (setup: ShownSetup) => void] {
  const [held, setHeld] = useState<{ token: string; setup: ShownSetup }>({
    token,
    setup: { key: "run", engine: false, setting: offeredSetting, unplugged: [], lampFor: null },
  });
  const setup = useMemo(
    () => (held.token === token ? held.setup : { ...held.setup, setting: offeredSetting }),
    [held, token, offeredSetting],
  );
  const setSetup = useCallback((next: ShownSetup) => setHeld({ token, setup: next }), [token]);
  return [setup, setSetup];
}

/** The sheet's state in a set-up under an assumption: usual healthy ones are at hand, others are requested. */
export function useShownState(bench: ProbeSheet, jobId: number, setup: ShownSetup, under: string) {
  const atHand = bench.healthy.find(({ setting, key }) => setting === setup.setting && key === setup.key);
  const query = setupQuery(setup, under === "healthy" ? [] : [under]);
  const usual = isUsual(setup) && under === "healthy";
  const { answer, current } = useAnswer<{ states: SheetState[] }>(
    usual ? null : `/jobs/${jobId}/states?${query}`,
  );
  const asked = current ? answer?.states : undefined;
  return {
    healthy: isUsual(setup) ? atHand : (asked?.[0] ?? atHand),
    shown: usual ? atHand : (asked?.find((state) => state.under === under) ?? atHand),
  };
}
