import { describe, expect, test } from "@jest/globals";
import { shippedCircuit, shippedIds } from "../testing/shippedCircuit";
import type { Circuit } from "./circuit";
import { terminalsOf } from "./parts/index";
import { circuitPoints } from "./points";

describe("the points a probe can touch", () => {
  const circuit = shippedCircuit("whimbrel-four-speed");
  const points = circuitPoints(circuit);

  test("are terminals, harness pins and both ends of every wire", () => {
    expect(points.ownerOf.get("F7.out")).toBe("F7");
    expect(points.ownerOf.get("X5:4")).toBe("X5");
    const [wire] = circuit.wires;
    expect(points.ownerOf.get(`${wire?.id}/from`)).toBe(wire?.id);
    expect(points.ownerOf.get(`${wire?.id}/to`)).toBe(wire?.id);
  });

  test("the pack's inside is not one: no probe reaches the joint before the link", () => {
    expect(points.ownerOf.has("R1.T1")).toBe(true);
    expect(points.ownerOf.has("R1.N")).toBe(false);
  });

  test("a relay's normally closed contact is one only if something is connected to it", () => {
    expect(points.ownerOf.has("K3.87a")).toBe(false);
    const withResting = circuitPoints(shippedCircuit("whimbrel-high-relay"));
    expect(withResting.names.filter((name) => name.endsWith(".87a")).length).toBeGreaterThan(0);
  });

  test("pair a plug's harness pin with the part's own terminal behind it", () => {
    expect(points.pinOnTerminal.get("R1.T4")).toBe("X5:4");
    expect(points.pinOnTerminal.get("F7.out")).toBeUndefined();
  });

  test.each(shippedIds)("on %s each is listed once and belongs to something in the circuit", (id) => {
    const own = shippedCircuit(id);
    const { names, ownerOf } = circuitPoints(own);
    expect(new Set(names).size).toBe(names.length);
    const items = new Set([...own.parts, ...own.connectors, ...own.wires].map((item) => item.id));
    for (const name of names) expect(items).toContain(ownerOf.get(name));
    expect(names.length).toBe(expectedCount(own));
  });
});

/** Counted another way: wire ends, pins, and terminals that always exist or are connected. */
function expectedCount(circuit: Circuit): number {
  const text = JSON.stringify([circuit.wires, circuit.connectors]);
  const pins = circuit.connectors.reduce((sum, connector) => sum + Object.keys(connector.pins).length, 0);
  const terminals = circuit.parts.flatMap((part) =>
    terminalsOf(part).filter((terminal) =>
      part.kind === "resistor" || terminal === "87a" ? text.includes(`"${part.id}.${terminal}"`) : true,
    ),
  );
  return 2 * circuit.wires.length + pins + terminals.length;
}
