import type { Circuit } from "@core/circuit/circuit";
import { useMemo } from "react";
import type { CircuitLayout } from "../drawing/circuitLayout";
import { LaidOutSheet } from "../drawing/SheetView";
import type { SheetState } from "../drawing/sheetState";

const nothing: ReadonlySet<string> = new Set();
/** It is looked at, not probed. */
const noTarget = (): void => {};

interface HealthySheetProps {
  readonly circuit: Circuit;
  readonly layout: CircuitLayout | Promise<CircuitLayout>;
  readonly state: SheetState | undefined;
  readonly fullVolts: number;
  /** Parts and wires to be lit. */
  readonly lit?: ReadonlySet<string> | null;
}

/** How a healthy vehicle with a circuit stands in one set-up. */
export function HealthySheet({ circuit, layout, state, fullVolts, lit }: HealthySheetProps) {
  const sheet = useMemo(
    () =>
      state
        ? {
            circuit,
            state,
            doubt: {},
            cleared: nothing,
            probe: null,
            fullVolts,
            lit: lit ?? nothing,
            chosen: null,
            other: null,
            unplugged: [],
            onTarget: noTarget,
          }
        : null,
    [circuit, state, fullVolts, lit],
  );
  return (
    <LaidOutSheet
      layout={layout}
      fileName={`${circuit.id}-${state?.setting ?? ""}`}
      focus={null}
      sheet={sheet}
    />
  );
}
