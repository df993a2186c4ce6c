import type { Circuit } from "@core/circuit/circuit";
import type { SheetProps } from "./sheetProps";
import type { SheetState } from "./sheetState";

/** Battery volts at rest, which the sheet's amber stands for. */
export function restVolts({ parts }: Pick<Circuit, "parts">): number {
  const battery = parts.find(({ kind }) => kind === "battery");
  return battery?.kind === "battery" ? battery.restVolts : 12.6;
}

const nothing: ReadonlySet<string> = new Set();
const noDoubt = {};
const noTarget = (): void => {};

/**
 * A sheet with no suspicions, marks or disconnected parts except those given; it is read-only unless told who probes.
 */
export const plainSheet = (
  circuit: Circuit,
  state: SheetState,
  more: Partial<Omit<SheetProps, "layout" | "circuit" | "state">> = {},
): Omit<SheetProps, "layout"> => ({
  circuit,
  state,
  doubt: noDoubt,
  cleared: nothing,
  probe: null,
  fullVolts: restVolts(circuit),
  lit: nothing,
  chosen: null,
  other: null,
  unplugged: [],
  onTarget: noTarget,
  ...more,
});
