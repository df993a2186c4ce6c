import { describe, expect, test } from "@jest/globals";
import type { PartOf } from "../../core/circuit/parts/index";
import { feedSides } from "../../core/solve/checks/feedSide";
import { shippedIds, shippedNetlist } from "../../core/testing/shippedCircuit";
import { packChain, packX, symbolShape } from "./symbolShape";

describe.each(shippedIds)("the symbols of %s", (id) => {
  const netlist = shippedNetlist(id);
  const { circuit } = netlist;
  const { enters } = feedSides(netlist);
  const shapes = circuit.parts.map((part) => ({
    part,
    shape: symbolShape(circuit, part, (at) => enters.get(at)),
  }));

  test("have a port for every terminal a wire or plug is on, inside the box", () => {
    const used = new Set([
      ...circuit.wires.flatMap(({ from, to }) => [from, to]),
      ...circuit.connectors.flatMap(({ pins }) => Object.values(pins)),
    ]);
    for (const { part, shape } of shapes) {
      if (part.kind === "splice") continue;
      const ports = new Set(shape.ports.map(({ terminal }) => `${part.id}.${terminal}`));
      for (const terminal of used) if (terminal.startsWith(`${part.id}.`)) expect(ports).toContain(terminal);
      for (const { x } of shape.ports) {
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(shape.width);
      }
    }
  });

  test("keep ports of one side far enough apart for their figures", () => {
    for (const { part, shape } of shapes) {
      for (const side of ["north", "south"] as const) {
        const xs = shape.ports
          .filter((port) => port.side === side)
          .map(({ x }) => x)
          .sort((a, b) => a - b);
        for (let i = 1; i < xs.length; i++)
          expect({ part: part.id, gap: (xs[i] as number) - (xs[i - 1] as number) >= 24 }).toEqual({
            part: part.id,
            gap: true,
          });
      }
    }
  });

  test("let current in at the top and out at the bottom", () => {
    for (const { part, shape } of shapes) {
      if (
        part.kind === "battery" ||
        part.kind === "ground" ||
        part.kind === "module" ||
        part.kind === "head" ||
        part.kind === "relay"
      )
        continue;
      for (const { terminal, side } of shape.ports) {
        const into = enters.get(`${part.id}.${terminal}`);
        const alone = shape.ports.length > 2 && part.kind !== "resistor" && part.kind !== "inline";
        if (into !== undefined && !alone)
          expect({ at: `${part.id}.${terminal}`, side }).toEqual({
            at: `${part.id}.${terminal}`,
            side: into ? "north" : "south",
          });
      }
    }
  });
});

describe("the chain of a pack", () => {
  const pack = (elements: readonly (readonly [string, string])[]): PartOf<"resistor"> => ({
    id: "R1",
    kind: "resistor",
    elements: elements.map(([from, to], i) => ({ id: `e${i}`, from, to, ohms: 1 })),
  });

  test.each([
    [
      [
        ["a", "b"],
        ["b", "c"],
        ["c", "d"],
      ],
      ["a", "b", "c", "d"],
    ],
    [
      [
        ["b", "a"],
        ["c", "b"],
      ],
      ["a", "b", "c"],
    ],
    [
      [
        ["c", "b"],
        ["a", "b"],
      ],
      ["c", "b", "a"],
    ],
    [[["a", "b"]], ["a", "b"]],
  ] as const)("of %j is %j", (elements, chain) => {
    const found = packChain(pack(elements));
    expect([chain, [...chain].reverse()]).toContainEqual(found);
  });

  test("loses no point of a pack that branches or forms a loop", () => {
    const star = packChain(
      pack([
        ["n", "a"],
        ["n", "b"],
        ["n", "c"],
      ]),
    );
    expect([...star].sort()).toEqual(["a", "b", "c", "n"]);
    expect(
      [
        ...packChain(
          pack([
            ["a", "b"],
            ["b", "c"],
            ["c", "a"],
          ]),
        ),
      ].sort(),
    ).toEqual(["a", "b", "c"]);
  });

  test("puts its points in a row", () => {
    const chain = ["a", "b", "c"];
    expect(packX(chain, "b") - packX(chain, "a")).toBe(packX(chain, "c") - packX(chain, "b"));
  });
});
