/**
 * One solved state, in buffers the solver owns: read what is needed before the next `solve`.
 * Where a device buzzes, volts, amps and speeds are the average of its two states.
 */
export interface SolvedState {
  /** Volts by node; 0 where it floats. */
  readonly volts: Float64Array;
  /** Amps by branch, from `a` to `b`; a control's stage carries what its supply pin carries. */
  readonly amps: Float64Array;
  /** Ohms of each branch as solved; Infinity where open. */
  readonly ohms: Float64Array;
  /** Radians a second by motor. */
  readonly speeds: Float64Array;
  /** 1 where no path leads to the reference. */
  readonly floating: Uint8Array;
  /** 1 for each relay, control or panel (by `Netlist.devices`) that never settles. */
  readonly buzzing: Uint8Array;
  /** 1 for each device that is on: pulled in, awake, alive. */
  readonly on: Uint8Array;
  /** Duty of each control, 0 to 1. */
  readonly duty: Float64Array;
  /** Amps each control's motor current freewheels, from the chopped leg to the joined one. */
  readonly freewheel: Float64Array;
  /** How each control conducts. */
  readonly stages: readonly StageForm[];
  readonly lampAmps: number;
}

/**
 * How a control's stage conducts: not at all, by PWM, holding the motor at its share of the supply,
 * or as plain `onOhms`.
 */
export type StageForm = "open" | "chopping" | "regulating" | "through";
