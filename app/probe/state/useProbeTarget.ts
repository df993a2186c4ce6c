import { useCallback, useState } from "react";
import type { ProbeTarget } from "../../sheet/probeTarget";

/** Where the probe is: what was tapped, the other lead, and the light's clip. */
export function useProbeTarget() {
  const [target, setTarget] = useState<ProbeTarget | null>(null);
  const [other, setOther] = useState<string | null>(null);
  const [placingOther, setPlacing] = useState(false);
  const [flipped, setFlipped] = useState(false);
  const take = useCallback(
    (next: ProbeTarget | null): void => {
      if (placingOther && next?.kind === "point") setOther(next.name);
      else {
        setTarget(next);
        setFlipped(false);
        setOther(null);
      }
      setPlacing(false);
    },
    [placingOther],
  );
  const flip = useCallback(() => setFlipped((before) => !before), []);
  const placeOther = useCallback((waits: boolean): void => {
    setPlacing(waits);
    if (!waits) setOther(null);
  }, []);
  return { target, other, placingOther, flipped, take, flip, placeOther };
}

export type ProbeInHand = ReturnType<typeof useProbeTarget>;
