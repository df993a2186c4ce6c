import type { SetupState } from "../netlist/setup";
import type { Values } from "../netlist/values";
import type { Groups } from "./connectivity";
import type { Edge } from "./ldl";
import type { Plan } from "./linearNetwork";

/** A change hung on a network: a new connection, or what a changed branch conducts beside its healthy self. */
export interface HungChange {
  readonly ends: Edge;
  readonly ohms: number;
}

/** A linear network factorised, and the changes that hang on it beside the devices and loads. */
interface FactorisedNetwork {
  readonly plan: Plan;
  /** By branch; 0 where it does not conduct or hangs on a port. */
  readonly siemens: Float64Array;
  /** Port of each branch that hangs on one, -1 for those inside. */
  readonly portOf: Int32Array;
  /** Groups of the network, what the changes at hand cut off apart. */
  readonly groups: Groups;
  readonly changed: readonly HungChange[];
}

/** A network of its own for one point: contacts and panels hang on ports. */
export interface BareNetwork extends FactorisedNetwork {
  readonly devicesInside: false;
}

/** The healthy network of one vehicle while its devices stand in one way. */
export interface HealthyState extends FactorisedNetwork {
  /** Contacts and panels conduct inside the network. */
  readonly devicesInside: true;
  /** Tells this way of standing from the others. */
  readonly key: number;
  readonly whole: Groups;
  groups: Groups;
  changed: readonly HungChange[];
  /** The solve its changes were hung for. */
  hungFor: number;
  /** Diagonal of the inverse by step, once asked for. */
  inverse: Float64Array | null;
}

export type NetworkState = BareNetwork | HealthyState;

/**
 * One healthy vehicle in one set-up, factorised for each way its devices have stood so far: most faults leave
 * that network as it is but for a branch or two, and are solved on it without factorising again.
 */
export interface HealthyNetwork {
  readonly values: Values;
  readonly setup: SetupState;
  /** Volts of each branch's own source. */
  readonly emfs: Float64Array;
  readonly ohms: Float64Array;
  readonly usable: Uint8Array;
  /** How its devices stand while it is healthy. */
  readonly on: Uint8Array;
  readonly duty: Float64Array;
  readonly standings: Map<number, HealthyState>;
}
