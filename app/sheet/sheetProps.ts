import type { Circuit } from "@core/circuit/circuit";
import type { CircuitLayout } from "./circuitLayout";
import type { ProbeTarget } from "./probeTarget";
import type { PartDoubt, SheetState } from "./sheetState";

/** What the sheet shows, and the callbacks for a tap. */
export interface SheetProps {
  readonly circuit: Circuit;
  readonly layout: CircuitLayout;
  readonly state: SheetState;
  readonly doubt: PartDoubt;
  /** Parts, plugs and wires cleared by the readings. */
  readonly cleared: ReadonlySet<string>;
  /** Point the next test touches. */
  readonly probe: string | null;
  readonly fullVolts: number;
  /** Parts and wires of the path lit from the path board. */
  readonly lit: ReadonlySet<string>;
  /** What was tapped: a point, a part or a wire. */
  readonly chosen: string | null;
  /** The other lead's point. */
  readonly other: string | null;
  /** Plugs, fuses and relays that are removed. */
  readonly unplugged: readonly string[];
  readonly onTarget: (target: ProbeTarget) => void;
}
