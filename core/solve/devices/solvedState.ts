/**
 * One solved state. Its buffers belong to the solver, so copy what you need before the next `solve`. If a device
 * oscillates, volts, amps and speeds are the average of its two states.
 */
export interface SolvedState {
  /** Volts by node; 0 if the node floats. */
  readonly volts: Float64Array;
  /** Amps by branch, from `a` to `b`; the branch of a control stage holds its supply pin's current. */
  readonly amps: Float64Array;
  /** Ohms of each branch as solved; Infinity if open. */
  readonly ohms: Float64Array;
  /** Motor speeds in radians a second. */
  readonly speeds: Float64Array;
  /** 1 for each node without a path to the reference. */
  readonly floating: Uint8Array;
  /** 1 for each relay, control module or panel (indexed as `Netlist.devices`) that never settles. */
  readonly buzzing: Uint8Array;
  /** 1 for each device that is on: pulled in, awake or alive. */
  readonly on: Uint8Array;
  /** Duty of each control module, 0 to 1. */
  readonly duty: Float64Array;
  /** Amps of each module's motor current that freewheel from the chopped leg to the joined one. */
  readonly freewheel: Float64Array;
  /** The mode of each control module. */
  readonly stages: readonly StageForm[];
  readonly lampAmps: number;
}

/**
 * How a module's output stage conducts: not at all, by PWM, holding the motor at a share of the supply, or as plain
 * `onOhms`.
 */
export type StageForm = "open" | "chopping" | "regulating" | "through";
