import type { Circuit } from "../../circuit/circuit";
import type { ClimatePanel, ControlModule, Motor, Relay } from "../../circuit/parts/index";
import type { CircuitPoints } from "../../circuit/points";

/** The reference node, the battery's negative post. */
export const reference = -1;

/** How a branch's value varies from one vehicle to the next. */
export type Spread = "contact" | "wire" | "fuse" | "element" | "coil" | "winding" | "source";

/** What decides whether a branch conducts, apart from faults and plugs. */
export type NetControlModule =
  | { readonly by: "selector"; readonly part: string; readonly closedIn: ReadonlySet<string> }
  | { readonly by: "ignition"; readonly closedIn: ReadonlySet<string> }
  | { readonly by: "relay"; readonly relay: number; readonly closedWhen: "pulled" | "released" }
  | { readonly by: "motor" | "module" | "head"; readonly index: number };

/** Branches whose conduction a device decides. The solver connects them to the linear network as ports. */
export const isPort = ({ control }: Branch): boolean =>
  control !== null && control.by !== "selector" && control.by !== "ignition";

/** A resistance between two nodes; its current is counted from `a` to `b`. */
export interface Branch {
  readonly id: string;
  readonly a: number;
  readonly b: number;
  readonly ohms: number;
  readonly spread: Spread;
  /** True if the circuit marks the part's values as a guess. */
  readonly assumed: boolean;
  /** The part, connector or wire it belongs to. */
  readonly owner: string;
  readonly control: NetControlModule | null;
}

export interface NetRelay {
  readonly part: Relay;
  readonly coil: number;
}

export interface NetMotor {
  readonly part: Motor;
  readonly branch: number;
}

/** An electronic control module: the nodes of its legs and the branches inside it. */
export interface NetModule {
  readonly part: ControlModule;
  readonly feed: number;
  readonly ground: number;
  readonly command: number;
  /**
   * The branch from the motor to its supply pin, through the leg the module chops or throttles; `onOhms` when full on.
   */
  readonly stage: number;
  /** The freewheel path of the motor current while the stage is off, from the chopped leg to the joined one. */
  readonly freewheel: { readonly a: number; readonly b: number };
}

/** A climate panel: the feeds it needs and the branch that puts its volts on the command wire. */
export interface NetClimatePanel {
  readonly part: ClimatePanel;
  readonly permanent: number;
  readonly switched: number;
  readonly ground: number;
  readonly source: number;
}

/** A device that decides for itself whether it conducts, in file order. */
export type Device =
  | { readonly kind: "relay"; readonly index: number }
  | { readonly kind: "module"; readonly index: number }
  | { readonly kind: "head"; readonly index: number };

/** A circuit as nodes and branches: what the solver works on. */
export interface Netlist {
  readonly circuit: Circuit;
  readonly points: CircuitPoints;
  /** Node names by index; the first point found at a node gives the node its name. */
  readonly nodeNames: readonly string[];
  /** The node of every point and every internal name; `reference` for the battery's negative post. */
  readonly nodeOf: ReadonlyMap<string, number>;
  readonly branches: readonly Branch[];
  readonly branchOf: ReadonlyMap<string, number>;
  readonly battery: { readonly branch: number; readonly positive: number; readonly id: string };
  readonly relays: readonly NetRelay[];
  readonly motors: readonly NetMotor[];
  readonly modules: readonly NetModule[];
  readonly heads: readonly NetClimatePanel[];
  readonly devices: readonly Device[];
}
