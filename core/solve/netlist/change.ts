import type { MotorChange } from "../../motor/motorConstants";

/** One change a fault makes to a netlist. */
export type Change =
  /** Ohms added in series with a branch; Infinity opens it. */
  | { readonly type: "series"; readonly branch: number; readonly ohms: number }
  /** A new connection between two nodes. */
  | { readonly type: "bridge"; readonly a: number; readonly b: number; readonly ohms: number }
  | { readonly type: "relay"; readonly relay: number; readonly held: "released" | "pulled" }
  | { readonly type: "motor"; readonly motor: number; readonly change: MotorChange }
  | { readonly type: "module"; readonly module: number; readonly held: ModuleHold }
  | { readonly type: "head"; readonly head: number; readonly held: ClimatePanelHold }
  /** Battery volts, at rest and while charging. */
  | { readonly type: "battery"; readonly volts: number }
  /** Airflow per rpm as a share of a healthy fan's. */
  | { readonly type: "airflow"; readonly motor: number; readonly times: number };

/** A control module that ignores its command: off, full on, or one fixed duty while it is awake. */
export type ModuleHold = "dead" | "full-on" | { readonly duty: number };

/**
 * A climate panel with no output, or with one fixed output given as a share of its range from lowest to highest
 * command.
 */
export type ClimatePanelHold = "dead" | { readonly share: number };
