import type { Circuit } from "../circuit/circuit";
import type { Motor, Part, PartKind, PartOf, Relay } from "../circuit/parts/index";
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
  | { readonly by: "relay"; readonly relay: number; readonly closedWhen: "pulled" | "released" };

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
  readonly unused = new Set<string>();

  node(name: string): number {
    const known = this.nodeOf.get(name);
    if (known !== undefined) return known;
    const index = this.nodeNames.length;
    this.nodeOf.set(name, index);
    this.nodeNames.push(name);
    return index;
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

function addWiring(builder: NetlistBuilder, circuit: Circuit, points: CircuitPoints): void {
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
    builder.branch({ id: from, owner }, [harness(wire.from), from], wire.fromOhms ?? wireEndOhms, "contact");
    builder.branch({ id: wire.id, owner }, [from, to], copperOhms(wire.metres, wire.mm2), "wire");
    builder.branch({ id: to, owner }, [to, harness(wire.to)], wire.toOhms ?? wireEndOhms, "contact");
  }
}

/** Kinds the solver knows; the rest parse but are refused here, by name. */
export function unsolvedParts(circuit: Circuit): { path: string; message: string }[] {
  return circuit.parts.flatMap((part, index) =>
    part.kind in solvedParts
      ? []
      : [
          {
            path: `parts.${index}.kind`,
            message: `${part.id} is a ${part.kind}, which Airway cannot solve yet; it solves ${Object.keys(solvedParts).join(", ")}`,
          },
        ],
  );
}

/** Lays a checked circuit out as a netlist; refuses part kinds the solver does not know yet. */
export function buildNetlist(circuit: Circuit): Parsed<Netlist> {
  const unsolved = unsolvedParts(circuit);
  if (unsolved.length > 0) return refused(unsolved);
  const points = circuitPoints(circuit);
  const builder = new NetlistBuilder();
  const battery = circuit.parts.find((part): part is PartOf<"battery"> => part.kind === "battery");
  if (!battery) return refused([{ path: "parts", message: "expected exactly one battery, got 0" }]);
  builder.nodeOf.set(`${battery.id}.-`, reference);
  for (const part of circuit.parts) addPart(builder, circuit, part);
  addWiring(builder, circuit, points);
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
    },
  };
}

function addPart(builder: NetlistBuilder, circuit: Circuit, part: Part): void {
  for (const terminal of terminalsOf(part)) {
    if (terminal !== "87a") builder.node(`${part.id}.${terminal}`);
  }
  const add = solvedParts[part.kind as keyof typeof solvedParts] as (
    builder: NetlistBuilder,
    part: Part,
    circuit: Circuit,
  ) => void;
  add(builder, part, circuit);
}

/** Adds one part kind's branches to a netlist. */
export type AddPart<K extends PartKind> = (
  builder: NetlistBuilder,
  part: PartOf<K>,
  circuit: Circuit,
) => void;
