import type { MotorChange } from "../../motor/motorConstants";

/** What a fault does to a netlist. */
export type Change =
  /** Ohms added in series with a branch; Infinity opens it. */
  | { readonly type: "series"; readonly branch: number; readonly ohms: number }
  /** A new connection between two nodes. */
  | { readonly type: "bridge"; readonly a: number; readonly b: number; readonly ohms: number }
  | { readonly type: "relay"; readonly relay: number; readonly held: "released" | "pulled" }
  | { readonly type: "motor"; readonly motor: number; readonly change: MotorChange }
  | { readonly type: "module"; readonly module: number; readonly held: ModuleHold }
  | { readonly type: "head"; readonly head: number; readonly held: ClimatePanelHold }
  /** Battery volts, at rest and charging. */
  | { readonly type: "battery"; readonly volts: number }
  /** Airflow per rpm, as a share of the healthy fan's. */
  | { readonly type: "airflow"; readonly motor: number; readonly times: number };

/** A control that does as it likes: nothing, everything, or one duty while it is awake. */
export type ModuleHold = "dead" | "full-on" | { readonly duty: number };

/** A panel that says nothing, or always the same share of the way from its lowest to its highest command. */
export type ClimatePanelHold = "dead" | { readonly share: number };
