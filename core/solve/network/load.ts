import type { MotorConstants } from "../../motor/motorConstants";

/** A share of a port's voltage or current; an element mixes at most two ports. */
export interface Tap {
  readonly port: number;
  readonly share: number;
}

/**
 * An element that conducts between nodes of the linear network. Its current i flows through the ports of `carries`,
 * and the mean of the volts over `senses` is emfVolts + ohms i.
 */
export interface LinearElement {
  readonly carries: readonly Tap[];
  readonly senses: readonly Tap[];
  readonly ohms: number;
  readonly emfVolts: number;
}

/**
 * A motor or the load lamp: a linear element with the ohms of its winding (or hot filament), whose back-EMF follows
 * from its own law.
 */
export interface Load {
  readonly element: LinearElement;
  /** Null for the load lamp. */
  readonly motor: { readonly constants: MotorConstants; readonly index: number } | null;
}
