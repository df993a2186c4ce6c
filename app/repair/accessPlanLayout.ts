import type { AccessPlan } from "@core/access/plan";
import ELK, { type ElkNode } from "elkjs/lib/elk.bundled.js";

const [width, height] = [210, 62];

/** A step or a part as a box. */
export interface PlanBox {
  readonly id: string;
  readonly kind: "step" | "part";
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What must come before what: one line each, marked with the way it belongs to. */
export interface PlanLine {
  readonly id: string;
  readonly corners: readonly { readonly x: number; readonly y: number }[];
  /** Counted from 0; null if there is only one way. */
  readonly way: number | null;
}

export interface PlanLayout {
  readonly width: number;
  readonly height: number;
  readonly boxes: readonly PlanBox[];
  readonly lines: readonly PlanLine[];
}

/** Lays a plan out in layers: the first steps at the top, the parts at the bottom. */
export async function layOutPlan({ steps, targets }: AccessPlan): Promise<PlanLayout> {
  const edges = [
    ...steps.flatMap(({ id, needs = [] }) => edgesTo(`step ${id}`, needs)),
    ...Object.entries(targets).flatMap(([part, ways]) => edgesTo(`part ${part}`, ways)),
  ];
  const graph: ElkNode = await new ELK().layout({
    id: "plan",
    layoutOptions: {
      "elk.algorithm": "layered",
      "elk.direction": "DOWN",
      "elk.edgeRouting": "POLYLINE",
      "elk.spacing.nodeNode": "22",
      "elk.layered.spacing.nodeNodeBetweenLayers": "34",
      "elk.randomSeed": "1",
      "elk.padding": "[top=12,left=12,bottom=12,right=12]",
    },
    children: [
      ...steps.map(({ id }) => ({ id: `step ${id}`, width, height })),
      ...Object.keys(targets).map((part) => ({
        id: `part ${part}`,
        width: 96,
        height: 40,
        layoutOptions: { "elk.layered.layering.layerConstraint": "LAST" },
      })),
    ],
    edges: edges.map(({ id, from, to }) => ({ id, sources: [from], targets: [to] })),
  });
  const wayOf = new Map(edges.map(({ id, way }) => [id, way]));
  return {
    width: graph.width ?? 0,
    height: graph.height ?? 0,
    boxes: (graph.children ?? []).map((child) => ({
      id: child.id.slice(5),
      kind: child.id.startsWith("step ") ? "step" : "part",
      x: child.x ?? 0,
      y: child.y ?? 0,
      width: child.width ?? 0,
      height: child.height ?? 0,
    })),
    lines: (graph.edges ?? []).map(({ id, sections }) => {
      const [section] = sections ?? [];
      return {
        id,
        corners: section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [],
        way: wayOf.get(id) ?? null,
      };
    }),
  };
}

function edgesTo(to: string, ways: readonly (readonly string[])[]) {
  return ways.flatMap((way, place) =>
    way.map((need) => ({
      id: `${need} > ${to} ${place}`,
      from: `step ${need}`,
      to,
      way: ways.length > 1 ? place : null,
    })),
  );
}
