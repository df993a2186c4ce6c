import type { Circuit } from "../circuit/circuit";
import type {
  ControlHead,
  ControlModule,
  Motor,
  Part,
  PartKind,
  PartOf,
  Relay,
} from "../circuit/parts/index";
import { terminalsOf } from "../circuit/parts/index";
import { type CircuitPoints, circuitPoints } from "../circuit/points";
import { type Parsed, refused } from "../formats/problem";
import { copperOhms } from "../units/copper";
import { solvedParts } from "./parts/index";

/** The reference node, the battery's negative post. */
export const reference = -1;

/** How a branch's value scatters from one vehicle to the next. */
export type Spread = "contact" | "wire" | "fuse" | "element" | "coil" | "winding" | "source";

/** What decides whether a branch conducts, beside faults and plugs. */
export type Control =
  | { readonly by: "selector"; readonly part: string; readonly closedIn: ReadonlySet<string> }
  | { readonly by: "ignition"; readonly closedIn: ReadonlySet<string> }
  | { readonly by: "relay"; readonly relay: number; readonly closedWhen: "pulled" | "released" }
  | { readonly by: "motor" | "module" | "head"; readonly index: number };

/** Branches that conduct as a device decides: the solver hangs them on the linear network as ports. */
export const isPort = ({ control }: Branch): boolean =>
  control !== null && control.by !== "selector" && control.by !== "ignition";

/** A resistance between two nodes, in the direction its current is counted. */
export interface Branch {
  readonly id: string;
  readonly a: number;
  readonly b: number;
  readonly ohms: number;
  readonly spread: Spread;
  /** True where the circuit marks the part's values as a guess. */
  readonly assumed: boolean;
  /** The part, connector or wire it belongs to. */
  readonly owner: string;
  readonly control: Control | null;
}

export interface NetRelay {
  readonly part: Relay;
  readonly coil: number;
}

export interface NetMotor {
  readonly part: Motor;
  readonly branch: number;
}

/** An electronic control: its legs by node, and the branches inside it. */
export interface NetModule {
  readonly part: ControlModule;
  readonly feed: number;
  readonly ground: number;
  readonly command: number;
  /** From the motor to its supply pin: the leg the control chops or throttles, `onOhms` when full on. */
  readonly stage: number;
  /** Where the motor's current goes while the stage is off: from the chopped leg to the joined one. */
  readonly freewheel: { readonly a: number; readonly b: number };
}

/** A control panel: the feeds it needs and the branch that puts its volts on the command wire. */
export interface NetHead {
  readonly part: ControlHead;
  readonly permanent: number;
  readonly switched: number;
  readonly ground: number;
  readonly source: number;
}

/** What decides for itself whether it conducts, in file order. */
export type Device =
  | { readonly kind: "relay"; readonly index: number }
  | { readonly kind: "module"; readonly index: number }
  | { readonly kind: "head"; readonly index: number };

/** A circuit as nodes and branches: what the solver works on. */
export interface Netlist {
  readonly circuit: Circuit;
  readonly points: CircuitPoints;
  /** Names of the nodes by index; points first seen give the node its name. */
  readonly nodeNames: readonly string[];
  /** Node of every point and of every internal name; `reference` for the battery's negative. */
  readonly nodeOf: ReadonlyMap<string, number>;
  readonly branches: readonly Branch[];
  readonly branchOf: ReadonlyMap<string, number>;
  readonly battery: { readonly branch: number; readonly positive: number; readonly id: string };
  readonly relays: readonly NetRelay[];
  readonly motors: readonly NetMotor[];
  readonly modules: readonly NetModule[];
  readonly heads: readonly NetHead[];
  readonly devices: readonly Device[];
}

/** Zero ohms is kept at a microohm so that conductances stay finite. */
const leastOhms = 1e-6;
const wireEndOhms = 0.0005;
const pinOhms = 0.003;

/** Collects branches while a netlist is built. */
export class NetlistBuilder {
  readonly nodeNames: string[] = [];
  readonly nodeOf = new Map<string, number>();
  readonly branches: Branch[] = [];
  readonly branchOf = new Map<string, number>();
  readonly relays: NetRelay[] = [];
  readonly motors: NetMotor[] = [];
  readonly modules: NetModule[] = [];
  readonly heads: NetHead[] = [];
  readonly devices: Device[] = [];

  node(name: string): number {
    const known = this.nodeOf.get(name);
    if (known !== undefined) return known;
    const index = this.nodeNames.length;
    this.nodeOf.set(name, index);
    this.nodeNames.push(name);
    return index;
  }

  /** Makes two names one node: a leg a part joins inside. */
  join(name: string, other: string): void {
    this.nodeOf.set(name, this.node(other));
  }

  /** Adds a branch between two named nodes and returns its index. */
  branch(
    item: { readonly id: string; readonly owner: string; readonly assumed?: boolean },
    ends: readonly [string, string],
    ohms: number,
    spread: Spread,
    control: Control | null = null,
  ): number {
    const index = this.branches.length;
    this.branches.push({
      id: item.id,
      a: this.node(ends[0]),
      b: this.node(ends[1]),
      ohms: Math.max(leastOhms, ohms),
      spread,
      assumed: item.assumed ?? false,
      owner: item.owner,
      control,
    });
    this.branchOf.set(item.id, index);
    return index;
  }
}

/** How finely a circuit is laid out. */
export interface NetlistOptions {
  /**
   * Each wire as one branch, its copper ends taken as the terminals they sit on: half the nodes, and a
   * few millivolts of end contact moved. The engine's many predictions are made so.
   */
  readonly lumpWires?: boolean;
}

function addWiring(
  builder: NetlistBuilder,
  circuit: Circuit,
  points: CircuitPoints,
  { lumpWires = false }: NetlistOptions,
): void {
  for (const connector of circuit.connectors) {
    for (const [pin, terminal] of Object.entries(connector.pins)) {
      const id = `${connector.id}:${pin}`;
      builder.branch({ id, owner: connector.id }, [id, terminal], connector.pinOhms ?? pinOhms, "contact");
    }
  }
  const harness = (terminal: string): string => points.pinOnTerminal.get(terminal) ?? terminal;
  for (const wire of circuit.wires) {
    const from = `${wire.id}/from`;
    const to = `${wire.id}/to`;
    const owner = wire.id;
    if (lumpWires) {
      builder.join(from, harness(wire.from));
      builder.join(to, harness(wire.to));
      const ends = (wire.fromOhms ?? wireEndOhms) + (wire.toOhms ?? wireEndOhms);
      const whole = builder.branch(
        { id: wire.id, owner, assumed: wire.assumed ?? false },
        [from, to],
        copperOhms(wire.metres, wire.mm2) + ends,
        "wire",
      );
      builder.branchOf.set(from, whole);
      builder.branchOf.set(to, whole);
      continue;
    }
    builder.branch({ id: from, owner }, [harness(wire.from), from], wire.fromOhms ?? wireEndOhms, "contact");
    builder.branch(
      { id: wire.id, owner, assumed: wire.assumed ?? false },
      [from, to],
      copperOhms(wire.metres, wire.mm2),
      "wire",
    );
    builder.branch({ id: to, owner }, [to, harness(wire.to)], wire.toOhms ?? wireEndOhms, "contact");
  }
}

/** Lays a checked circuit out as a netlist. */
export function buildNetlist(circuit: Circuit, options: NetlistOptions = {}): Parsed<Netlist> {
  const points = circuitPoints(circuit);
  const builder = new NetlistBuilder();
  const battery = circuit.parts.find((part): part is PartOf<"battery"> => part.kind === "battery");
  if (!battery) return refused([{ path: "parts", message: "expected exactly one battery, got 0" }]);
  builder.nodeOf.set(`${battery.id}.-`, reference);
  for (const part of circuit.parts) addPart(builder, circuit, part);
  addWiring(builder, circuit, points, options);
  for (const name of points.names) builder.node(name);
  return {
    ok: true,
    value: {
      circuit,
      points,
      nodeNames: builder.nodeNames,
      nodeOf: builder.nodeOf,
      branches: builder.branches,
      branchOf: builder.branchOf,
      battery: {
        branch: builder.branchOf.get(battery.id) ?? 0,
        positive: builder.node(`${battery.id}.+`),
        id: battery.id,
      },
      relays: builder.relays,
      motors: builder.motors,
      modules: builder.modules,
      heads: builder.heads,
      devices: builder.devices,
    },
  };
}

function addPart(builder: NetlistBuilder, circuit: Circuit, part: Part): void {
  const add = solvedParts[part.kind] as (builder: NetlistBuilder, part: Part, circuit: Circuit) => void;
  add(builder, part, circuit);
  for (const terminal of terminalsOf(part)) {
    if (terminal !== "87a") builder.node(`${part.id}.${terminal}`);
  }
}

/** Adds one part kind's branches to a netlist. */
export type AddPart<K extends PartKind> = (
  builder: NetlistBuilder,
  part: PartOf<K>,
  circuit: Circuit,
) => void;
