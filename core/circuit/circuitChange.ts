import type { Circuit } from "./circuit";

/** One difference between two versions of a circuit. */
export interface CircuitChange {
  readonly what: "added" | "gone" | "changed";
  /** The part, plug, wire or place, or a key of the circuit itself. */
  readonly id: string;
  /** If it changed: each key with its value before and after, as text. */
  readonly keys: readonly { readonly key: string; readonly before: string; readonly after: string }[];
}

const text = (value: unknown): string => (value === undefined ? "nothing" : JSON.stringify(value));

function keysOf(before: object, after: object): CircuitChange["keys"] {
  const was = before as Record<string, unknown>;
  const is = after as Record<string, unknown>;
  return [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .filter((key) => text(was[key]) !== text(is[key]))
    .map((key) => ({ key, before: text(was[key]), after: text(is[key]) }));
}

function changesOf(before: readonly { id: string }[], after: readonly { id: string }[]): CircuitChange[] {
  const was = new Map(before.map((item) => [item.id, item]));
  const is = new Map(after.map((item) => [item.id, item]));
  return [
    ...before.flatMap((item): CircuitChange[] => {
      const now = is.get(item.id);
      if (!now) return [{ what: "gone", id: item.id, keys: [] }];
      const keys = keysOf(item, now);
      return keys.length > 0 ? [{ what: "changed", id: item.id, keys }] : [];
    }),
    ...after.flatMap(({ id }): CircuitChange[] => (was.has(id) ? [] : [{ what: "added", id, keys: [] }])),
  ];
}

/** The differences between two versions of a circuit, item by item; an empty list if they are equal. */
export function circuitChanges(before: Circuit, after: Circuit): CircuitChange[] {
  const { parts, connectors, wires, places, ...own } = before;
  const { parts: newParts, connectors: newConnectors, wires: newWires, places: newPlaces, ...newOwn } = after;
  const head = keysOf(own, newOwn);
  return [
    ...(head.length > 0 ? [{ what: "changed", id: "the circuit", keys: head } as const] : []),
    ...changesOf(parts, newParts),
    ...changesOf(connectors, newConnectors),
    ...changesOf(wires, newWires),
    ...changesOf(places, newPlaces),
  ];
}
