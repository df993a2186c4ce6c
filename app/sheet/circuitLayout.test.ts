import { describe, expect, test } from "@jest/globals";
import { mergedCircuit } from "../../core/testing/mergedCircuit";
import { netlistOf, shippedIds, shippedNetlist } from "../../core/testing/shippedCircuit";
import { layOut } from "./circuitLayout";

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

const large = netlistOf(mergedCircuit("whimbrel-four-speed", "godwit-four-speed-feed"));

test("the larger one has more than sixty nodes", () => {
  expect(large.nodeNames.length).toBeGreaterThan(60);
});

const drawn = [
  ...shippedIds.map((id) => [id, shippedNetlist(id)] as const),
  ["one of over sixty nodes", large] as const,
];

describe.each(drawn)("the drawing of %s", (_, netlist) => {
  test("keeps symbols and labels apart, and every wire out of every symbol", async () => {
    const layout = await layOut(netlist);
    const symbols = layout.parts.map(({ id: part, x, y, shape }) => ({
      part,
      x,
      y,
      width: shape.width,
      height: shape.height,
    }));
    for (const [i, one] of symbols.entries())
      for (const other of symbols.slice(i + 1))
        expect({ one, other, over: overlap(one, other) }).toMatchObject({ over: false });
    const labels = layout.wires.flatMap(({ id: wire, label }) => (label ? [{ wire, ...label }] : []));
    // A code or two may find no room; it is still read out, and shown when it is tapped.
    expect(labels.length).toBeGreaterThanOrEqual(layout.wires.length - 2);
    for (const [i, one] of labels.entries())
      for (const other of labels.slice(i + 1))
        expect({ one, other, over: overlap(one, other) }).toMatchObject({ over: false });
    for (const label of labels)
      for (const symbol of symbols)
        expect({ label, symbol, over: overlap(label, symbol) }).toMatchObject({ over: false });
    for (const { id: wire, corners } of layout.wires) {
      for (const [i, to] of corners.slice(1).entries()) {
        const from = corners[i] as { x: number; y: number };
        const box = {
          x: Math.min(from.x, to.x),
          y: Math.min(from.y, to.y),
          width: Math.abs(from.x - to.x),
          height: Math.abs(from.y - to.y),
        };
        for (const symbol of symbols.filter(({ width }) => width > 10)) {
          const inner = {
            x: symbol.x + 1,
            y: symbol.y + 1,
            width: symbol.width - 2,
            height: symbol.height - 2,
          };
          expect({
            wire,
            part: symbol.part,
            through: overlap({ ...box, width: box.width + 0.1, height: box.height + 0.1 }, inner),
          }).toMatchObject({ through: false });
        }
      }
    }
  });

  test("keeps the points apart, so that each can be tapped for itself", async () => {
    const layout = await layOut(netlist);
    const used = new Set(netlist.circuit.wires.flatMap(({ from, to }) => [from, to]));
    const points = layout.parts.flatMap(({ id: part, x, y, shape }) =>
      shape.ports
        .filter(({ terminal }) => used.has(`${part}.${terminal}`))
        .map(({ terminal, x: across, side }) => ({
          point: `${part}.${terminal}`,
          x: x + across,
          y: y + (side === "north" ? -7 : shape.height + 7),
        })),
    );
    for (const [i, one] of points.entries())
      for (const other of points.slice(i + 1)) {
        const far = Math.max(Math.abs(one.x - other.x), Math.abs(one.y - other.y));
        expect({ one: one.point, other: other.point, apart: far >= 26 }).toMatchObject({ apart: true });
      }
  });

  test("has every symbol, wire and label on the sheet", async () => {
    const layout = await layOut(netlist);
    const boxes = [
      ...layout.parts.map(({ x, y, shape }) => ({ x, y, width: shape.width, height: shape.height })),
      ...layout.wires.flatMap(({ corners, label }) => [
        ...corners.map((corner) => ({ ...corner, width: 0, height: 0 })),
        ...(label ? [label] : []),
      ]),
    ];
    for (const box of boxes) {
      expect(box.x).toBeGreaterThanOrEqual(layout.x);
      expect(box.y).toBeGreaterThanOrEqual(layout.y);
      expect(box.x + box.width).toBeLessThanOrEqual(layout.x + layout.width);
      expect(box.y + box.height).toBeLessThanOrEqual(layout.y + layout.height);
    }
  });

  test("runs from feed at the top to ground at the bottom, the same every time", async () => {
    const layout = await layOut(netlist);
    const y = (part: string): number => layout.parts.find((placed) => placed.id === part)?.y ?? Number.NaN;
    const battery = netlist.battery.id;
    for (const { id: part, kind } of netlist.circuit.parts) {
      if (kind === "ground") expect(y(part)).toBeGreaterThan(y(battery));
      if (kind === "motor") expect(y(part)).toBeGreaterThan(y(battery));
    }
    expect(await layOut(netlist)).toEqual(layout);
  });
});
