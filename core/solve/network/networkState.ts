import type { SetupState } from "../netlist/setup";
import type { Values } from "../netlist/values";
import type { Groups } from "./connectivity";
import type { Edge } from "./ldl";
import type { Plan } from "./linearNetwork";

/**
 * One change on a network: a new connection, or the conductance of a changed branch in addition to its healthy value.
 */
export interface HungChange {
  readonly ends: Edge;
  readonly ohms: number;
}

/** A factorised linear network, and the changes on it in addition to the devices and loads. */
interface FactorisedNetwork {
  readonly plan: Plan;
  /** By branch; 0 if the branch does not conduct or has a port. */
  readonly siemens: Float64Array;
  /** Port of each branch that has one, -1 for branches inside. */
  readonly portOf: Int32Array;
  /** Groups of the network, including those the present changes cut off. */
  readonly groups: Groups;
  readonly changed: readonly HungChange[];
}

/** A network for one operating point alone: contacts and panels have ports. */
export interface BareNetwork extends FactorisedNetwork {
  readonly devicesInside: false;
}

/** The healthy network of one vehicle for one combination of device states. */
export interface HealthyState extends FactorisedNetwork {
  /** Contacts and panels conduct inside the network. */
  readonly devicesInside: true;
  /** Number that identifies this combination of device states. */
  readonly key: number;
  readonly whole: Groups;
  groups: Groups;
  changed: readonly HungChange[];
  /** The solve its changes were applied for. */
  hungFor: number;
  /** The inverse's diagonal by step, computed on first use. */
  inverse: Float64Array | null;
}

export type NetworkState = BareNetwork | HealthyState;

/**
 * One healthy vehicle in one set-up, factorised for each combination of device states met so far. Most faults change
 * only one or two branches, so they are solved on this network without factorising again.
 */
export interface HealthyNetwork {
  readonly values: Values;
  readonly setup: SetupState;
  /** Volts of each branch's own source. */
  readonly emfs: Float64Array;
  readonly ohms: Float64Array;
  readonly usable: Uint8Array;
  /** Device states while the vehicle is healthy. */
  readonly on: Uint8Array;
  readonly duty: Float64Array;
  readonly standings: Map<number, HealthyState>;
}
