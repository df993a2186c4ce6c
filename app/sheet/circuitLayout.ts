import type { Circuit } from "@core/circuit/circuit";
import { feedSides } from "@core/solve/checks/feedSide";
import type { Netlist } from "@core/solve/netlist/netlist";
import ELK, { type ElkExtendedEdge, type ElkNode } from "elkjs/lib/elk.bundled.js";
import { type Box, type PlacedLabel, placeLabels } from "./labelPlacement";
import { type SymbolShape, symbolShape } from "./symbolShape";

export interface PlacedPart {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly shape: SymbolShape;
}

export interface PlacedWire {
  readonly id: string;
  /** Corner points, from the wire's `from` end to its `to` end. */
  readonly corners: readonly { readonly x: number; readonly y: number }[];
  readonly label: PlacedLabel | null;
}

/** A circuit laid out from feed to ground; the same for every state, so that nothing moves. */
export interface CircuitLayout extends Box {
  readonly parts: readonly PlacedPart[];
  readonly wires: readonly PlacedWire[];
}

const layoutOptions = {
  "elk.algorithm": "layered",
  "elk.direction": "DOWN",
  "elk.edgeRouting": "ORTHOGONAL",
  "elk.spacing.nodeNode": "44",
  "elk.spacing.edgeNode": "44",
  "elk.spacing.edgeEdge": "24",
  "elk.layered.spacing.nodeNodeBetweenLayers": "48",
  "elk.layered.spacing.edgeNodeBetweenLayers": "20",
  "elk.layered.spacing.edgeEdgeBetweenLayers": "13",
  "elk.layered.nodePlacement.strategy": "NETWORK_SIMPLEX",
  "elk.padding": "[top=14,left=14,bottom=14,right=14]",
  "elk.randomSeed": "1",
};

function nodeOf(circuit: Circuit, part: Circuit["parts"][number], shape: SymbolShape): ElkNode {
  const first = part.kind === "battery" ? { "elk.layered.layering.layerConstraint": "FIRST" } : {};
  const last = part.kind === "ground" ? { "elk.layered.layering.layerConstraint": "LAST" } : {};
  const wired = (terminal: string): boolean =>
    circuit.wires.some(
      ({ from, to }) => from === `${part.id}.${terminal}` || to === `${part.id}.${terminal}`,
    );
  return {
    id: part.id,
    width: shape.width,
    height: shape.height,
    layoutOptions: {
      ...first,
      ...last,
      "elk.portConstraints": shape.ports.length > 0 ? "FIXED_POS" : "FREE",
    },
    ports: shape.ports
      .filter(({ terminal }) => wired(terminal))
      .map(({ terminal, x, side }) => ({
        id: `${part.id}.${terminal}`,
        x,
        y: side === "north" ? 0 : shape.height,
        width: 0,
        height: 0,
        layoutOptions: { "elk.port.side": side === "north" ? "NORTH" : "SOUTH" },
      })),
  };
}

const endOf = (circuit: Circuit, reference: string): string => {
  const id = reference.slice(0, reference.indexOf("."));
  return circuit.parts.find((part) => part.id === id)?.kind === "splice" ? id : reference;
};

type Corners = PlacedWire["corners"];

function cornersOf(edge: ElkExtendedEdge, backwards: ReadonlySet<string>): Corners {
  const [section] = edge.sections ?? [];
  const corners = section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [];
  return backwards.has(edge.id) ? [...corners].reverse() : corners;
}

/** Lays a circuit out in layers from feed to ground. */
export async function layOut(netlist: Netlist): Promise<CircuitLayout> {
  const { circuit } = netlist;
  const { enters, backwards } = feedSides(netlist);
  const shapes = new Map(
    circuit.parts.map((part) => [part.id, symbolShape(circuit, part, (reference) => enters.get(reference))]),
  );
  const graph: ElkNode = await new ELK().layout({
    id: "circuit",
    layoutOptions,
    children: circuit.parts.map((part) => nodeOf(circuit, part, shapes.get(part.id) as SymbolShape)),
    edges: circuit.wires.map(({ id, from, to }) => {
      const ends = backwards.has(id) ? [to, from] : [from, to];
      return {
        id,
        sources: [endOf(circuit, ends[0] as string)],
        targets: [endOf(circuit, ends[1] as string)],
      };
    }),
  });
  const parts = (graph.children ?? []).map(({ id, x, y }) => ({
    id,
    x: x ?? 0,
    y: y ?? 0,
    shape: shapes.get(id) as SymbolShape,
  }));
  const wires = (graph.edges ?? []).map((edge) => ({ id: edge.id, corners: cornersOf(edge, backwards) }));
  // A colour nobody has seen is not told.
  const colourOf = new Map(circuit.wires.map(({ id, colour, assumed }) => [id, assumed ? "?" : colour]));
  const labels = placeLabels(
    wires.map(({ id, corners }) => ({ corners, words: [id, colourOf.get(id) ?? ""] as const })),
    parts.flatMap(partBoxes),
  );
  return {
    ...sheetBox(graph, wires, labels),
    parts,
    wires: wires.map((wire, i) => ({ ...wire, label: labels[i] ?? null })),
  };
}

/** Margin around the outermost line, for a probe's bulb and a pin's volts. */
const margin = 30;

/** The sheet: the layout's own size, and more if a wire or its label extends outside it. */
function sheetBox(
  graph: ElkNode,
  wires: readonly { readonly corners: Corners }[],
  labels: readonly (Box | null)[],
): Box {
  const corners = wires.flatMap((wire) => wire.corners);
  const boxes = labels.flatMap((label) => (label ? [label] : []));
  const right = [...corners.map(({ x }) => x + margin), ...boxes.map(({ x, width }) => x + width)];
  const bottom = [...corners.map(({ y }) => y + margin), ...boxes.map(({ y, height }) => y + height)];
  const x = Math.min(0, ...boxes.map((box) => box.x - 4));
  const y = Math.min(0, ...boxes.map((box) => box.y - 4));
  return {
    x,
    y,
    width: Math.max(graph.width ?? 0, ...right) - x,
    height: Math.max(graph.height ?? 0, ...bottom) - y,
  };
}

const voltsRoom = { width: 60, height: 20 };

/** What labels must not cover: the symbol, and at each port its pin and its volts. */
function partBoxes({ x, y, shape }: PlacedPart): Box[] {
  const ports = shape.ports.map((port) => ({
    x: x + port.x - 10,
    y: port.side === "north" ? y - voltsRoom.height : y + shape.height,
    ...voltsRoom,
  }));
  return [{ x, y, width: shape.width, height: shape.height }, ...ports];
}
