import { beforeAll, describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../../core/chance/chance";
import { mergedCircuit } from "../../core/testing/mergedCircuit";
import { netlistOf, shippedIds, shippedNetlist } from "../../core/testing/shippedCircuit";
import { traceCircuit } from "../../core/trace/traceCircuit";
import { type CircuitLayout, layOut } from "./circuitLayout";
import { percentY } from "./PlacedSymbol";

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** Every pair of a list. */
const pairs = <T>(list: readonly T[]) =>
  list.flatMap((one, i) => list.slice(i + 1).map((other) => [one, other] as const));

const overlapping = <T extends readonly [Box, Box]>(list: readonly T[]): T[] =>
  list.filter(([one, other]) => overlap(one, other));

const large = netlistOf(mergedCircuit("whimbrel-four-speed", "godwit-four-speed-feed"));

test("the larger one has more than sixty nodes", () => {
  expect(large.nodeNames.length).toBeGreaterThan(60);
});

const drawn = [
  ...shippedIds.map((id) => [id, shippedNetlist(id)] as const),
  ["one of over sixty nodes", large] as const,
];

describe.each(drawn)("the drawing of %s", (_, netlist) => {
  let layout: CircuitLayout;
  beforeAll(async () => {
    layout = await layOut(netlist);
  });

  test("keeps symbols and labels apart, and leads every wire around every symbol", () => {
    const symbols = layout.parts.map(({ id: part, x, y, shape }) => ({
      part,
      x,
      y,
      width: shape.width,
      height: shape.height,
    }));
    expect(overlapping(pairs(symbols))).toEqual([]);
    const labels = layout.wires.flatMap(({ id: wire, label }) => (label ? [{ wire, ...label }] : []));
    // One or two codes may find no room; they are still read out, and shown when tapped.
    expect(labels.length).toBeGreaterThanOrEqual(layout.wires.length - 2);
    expect(overlapping(pairs(labels))).toEqual([]);
    expect(overlapping(labels.flatMap((label) => symbols.map((symbol) => [label, symbol] as const)))).toEqual(
      [],
    );
    const through: { wire: string; part: string }[] = [];
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
          if (overlap({ ...box, width: box.width + 0.1, height: box.height + 0.1 }, inner))
            through.push({ wire, part: symbol.part });
        }
      }
    }
    expect(through).toEqual([]);
  });

  test("keeps the points apart, so that each can be tapped", () => {
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
    const close = pairs(points).filter(
      ([one, other]) => Math.max(Math.abs(one.x - other.x), Math.abs(one.y - other.y)) < 26,
    );
    expect(close).toEqual([]);
  });

  test("has every symbol, wire and label on the sheet", () => {
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

  test("runs from feed at the top to ground at the bottom, and is the same every time", async () => {
    const y = (part: string): number => layout.parts.find((placed) => placed.id === part)?.y ?? Number.NaN;
    const battery = netlist.battery.id;
    for (const { id: part, kind } of netlist.circuit.parts) {
      if (kind === "ground") expect(y(part)).toBeGreaterThan(y(battery));
      if (kind === "motor") expect(y(part)).toBeGreaterThan(y(battery));
    }
    expect(await layOut(netlist)).toEqual(layout);
  });
});

/** A circuit traced with random answers. */
function generated(seed: number) {
  const chance = chanceFrom(seed);
  const control = chance.pick(["resistor", "resistor", "linear", "chopping"] as const);
  const circuit = traceCircuit(
    { id: `generated-${seed}`, title: "Generated" },
    {
      control,
      feed: chance.pick(["always", "key"] as const),
      relay: chance.pick(["yes", "no"] as const),
      hands: chance.pick(["ground", "feed"] as const),
      speeds: 2 + Math.floor(chance.uniform() * 7),
      top: chance.pick(["switch", "relay", "pack"] as const),
      link: chance.pick(["all", "lowest", "none"] as const),
    },
  );
  return netlistOf(circuit);
}

const fifty = Array.from(
  { length: 50 },
  (_, seed) => [`generated circuit ${seed}`, generated(seed)] as const,
);

/** Sizes of what stands at a port, as PointPort draws them, with the widest figure: "12.6". */
const pinSquare = { width: 16, height: 14 };
const figure = { width: 38, height: 13 };
/** A part's probability as PlacedSymbol writes it: "100 %" at 17 units, right-aligned. */
const probability = { width: 50, height: 14 };

test.each([...drawn, ...fifty])(
  "%s: pins, figures and wire labels never cover each other",
  async (_, netlist) => {
    const layout = await layOut(netlist);
    const ports = layout.parts.flatMap(({ id, x, y, shape }) =>
      shape.ports.map((port) => {
        const north = port.side === "north";
        return {
          name: `${id}.${port.terminal}`,
          pin: { x: x + port.x - 8, y: north ? y - 14 : y + shape.height, ...pinSquare },
          volts: { x: x + port.x + 12, y: north ? y - 17 : y + shape.height + 2, ...figure },
        };
      }),
    );
    const wired = new Set(netlist.circuit.wires.flatMap(({ from, to }) => [from, to]));
    const shown = ports.filter(({ name }) => wired.has(name));
    const labels = layout.wires.flatMap(({ id, label }) => (label ? [{ id, ...label }] : []));
    const pins = shown.map(({ name, pin }) => ({ name, ...pin }));
    const figures = shown.map(({ name, volts }) => ({ name, ...volts }));
    const kinds = new Map(netlist.circuit.parts.map(({ id, kind }) => [id, kind]));
    const probabilities = layout.parts.map(({ id, x, y, shape }) => ({
      name: `${id} %`,
      x: x + shape.width - 2 - probability.width,
      y: y + (percentY[kinds.get(id) ?? "fuse"] ?? 12) - probability.height,
      ...probability,
    }));
    expect(
      overlapping(
        probabilities.flatMap((own) => [...pins, ...figures].map((other) => [own, other] as const)),
      ),
    ).toEqual([]);
    expect(overlapping(pairs(pins))).toEqual([]);
    expect(overlapping(pairs(figures))).toEqual([]);
    expect(overlapping(pins.flatMap((pin) => figures.map((own) => [pin, own] as const)))).toEqual([]);
    expect(
      overlapping(labels.flatMap((label) => [...pins, ...figures].map((own) => [label, own] as const))),
    ).toEqual([]);
  },
);
