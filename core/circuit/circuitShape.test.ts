import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { shippedCircuit, shippedIds } from "../testing/shippedCircuit";
import type { Circuit } from "./circuit";
import { circuitShape } from "./circuitShape";

/** The same circuit with other names, its parts and wires in another order, and longer wires. */
function renamed(circuit: Circuit, order: readonly number[]): Circuit {
  const name = new Map(circuit.parts.map(({ id }, i) => [id, `Y${order[i % order.length]}${i}`]));
  const point = (reference: string): string => {
    const dot = reference.indexOf(".");
    return `${name.get(reference.slice(0, dot))}${reference.slice(dot)}`;
  };
  const shuffled = <T>(items: readonly T[]): T[] =>
    items
      .map((item, i) => ({ item, key: order[i % order.length] as number }))
      .sort((a, b) => a.key - b.key)
      .map(({ item }) => item);
  return {
    ...circuit,
    id: "other",
    title: "another name",
    parts: shuffled(circuit.parts.map((part) => ({ ...part, id: name.get(part.id) ?? "" }))),
    wires: shuffled(
      circuit.wires.map((wire, i) =>
        i % 2
          ? { ...wire, from: point(wire.from), to: point(wire.to), metres: wire.metres + 1 }
          : { ...wire, id: `V${i}`, from: point(wire.to), to: point(wire.from) },
      ),
    ),
  };
}

test("names, order, direction and lengths do not matter", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...shippedIds),
      fc.array(fc.nat(999), { minLength: 3, maxLength: 40 }),
      (id, order) => {
        const circuit = shippedCircuit(id);
        expect(circuitShape(renamed(circuit, order))).toBe(circuitShape(circuit));
      },
    ),
    { numRuns: 60, seed: 4 },
  );
});

test("a moved, missing or added wire matters", () => {
  const circuit = shippedCircuit("whimbrel-four-speed");
  const shape = circuitShape(circuit);
  const [first] = circuit.wires;
  expect(circuitShape({ ...circuit, wires: circuit.wires.slice(1) })).not.toBe(shape);
  expect(circuitShape({ ...circuit, wires: [...circuit.wires, { ...first, id: "W99" } as never] })).not.toBe(
    shape,
  );
  const moved = circuit.wires.map((wire) =>
    wire.id === "W13" ? { ...wire, from: "R1.T2" } : wire.id === "W14" ? { ...wire, from: "R1.T1" } : wire,
  );
  expect(circuitShape({ ...circuit, wires: moved })).not.toBe(shape);
});

test("a right-hand-drive twin has the same shape, and no other shipped circuit shares one", () => {
  const byShape = new Map<string, string[]>();
  for (const id of shippedIds) {
    const shape = circuitShape(shippedCircuit(id));
    byShape.set(shape, [...(byShape.get(shape) ?? []), id]);
  }
  expect([...byShape.values()].filter((ids) => ids.length > 1)).toEqual([
    ["godwit-four-speed-feed", "godwit-four-speed-rhd"],
  ]);
});
