import type { Circuit } from "@core/circuit/circuit";
import { useMemo } from "react";
import type { CircuitLayout } from "../sheet/circuitLayout";
import { plainSheet } from "../sheet/plainSheet";
import { SetupBar } from "../sheet/SetupBar";
import { SheetTools } from "../sheet/SheetTools";
import { LaidOutSheet } from "../sheet/SheetView";
import type { SheetState } from "../sheet/sheetState";
import type { ShownSetup } from "../sheet/shownSetup";

const noHeard = {};

/** The first set-up shown: key on, no setting chosen yet. */
export const firstSetup: ShownSetup = {
  key: "run",
  engine: false,
  setting: "",
  unplugged: [],
  lampFor: null,
};

interface HealthySheetProps {
  readonly view: {
    readonly circuit: Circuit;
    readonly layout: CircuitLayout | Promise<CircuitLayout>;
    /** The state of a healthy vehicle in each usual set-up. */
    readonly healthy: readonly SheetState[];
    readonly fullVolts: number;
  };
  readonly setup: ShownSetup;
  readonly onSetup: (setup: ShownSetup) => void;
  /** The window's height, as classes. */
  readonly height: string;
  /** Parts and wires to light. */
  readonly lit?: ReadonlySet<string> | null;
}

/** A setting of the circuit: the chosen one if it exists, otherwise the last. */
export const settingOf = ({ settings }: Circuit, { setting }: ShownSetup): string =>
  settings.includes(setting) ? setting : (settings.at(-1) ?? "off");

/** A healthy vehicle with this circuit, setting by setting. */
export function HealthySheet(props: HealthySheetProps) {
  const { view, onSetup, height, lit } = props;
  const { circuit, layout, healthy, fullVolts } = view;
  const setup = { ...props.setup, setting: settingOf(circuit, props.setup) };
  const state = healthy.find(({ setting, key }) => setting === setup.setting && key === setup.key);
  const sheet = useMemo(
    () => (state ? plainSheet(circuit, state, { fullVolts, ...(lit ? { lit } : {}) }) : null),
    [circuit, state, fullVolts, lit],
  );
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <SetupBar
          settings={circuit.settings}
          heard={noHeard}
          setup={setup}
          onSetup={onSetup}
          engineToo={false}
        >
          {null}
        </SetupBar>
        <SheetTools focus={null} />
      </div>
      <div className={`sheet-card sheet-pane relative ${height}`}>
        <LaidOutSheet
          layout={layout}
          fileName={`${circuit.id}-${setup.setting}`}
          focus={null}
          sheet={sheet}
        />
      </div>
    </>
  );
}
