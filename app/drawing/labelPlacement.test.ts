import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { type Box, labelRoom, placeLabels } from "./labelPlacement";

const over = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
const line = (x: number, y: number, toX: number, toY: number) => [
  { x, y },
  { x: toX, y: toY },
];

describe("labels beside their wires", () => {
  test("a free wire's stands by the middle of its longest stretch", () => {
    const corners = [
      { x: 100, y: 0 },
      { x: 100, y: 20 },
      { x: 500, y: 20 },
    ];
    const [box] = placeLabels([{ corners, text: "BK/YE 2.5" }], []);
    expect(box).not.toBeNull();
    expect(Math.abs((box?.x ?? 0) + (box?.width ?? 0) / 2 - 300)).toBeLessThan(1);
    expect(box).toMatchObject(labelRoom("BK/YE 2.5"));
  });

  test("goes to the other side, or along, where the first place is taken", () => {
    const wire = { corners: line(100, 0, 100, 400), text: "RD" };
    const [first] = placeLabels([wire], []);
    const [second] = placeLabels([wire], [first as Box]);
    expect(second).not.toBeNull();
    expect(over(first as Box, second as Box)).toBe(false);
  });

  test("is left out rather than laid over something", () => {
    const wall = { x: -1000, y: -1000, width: 3000, height: 3000 };
    expect(placeLabels([{ corners: line(100, 0, 100, 400), text: "RD" }], [wall])).toEqual([null]);
  });

  test("no label ever crosses another, a wire or a symbol", () => {
    const at = fc.integer({ min: 0, max: 600 });
    const wire = fc.tuple(at, at, at, fc.boolean()).map(([x, y, length, upright]) => ({
      corners: upright ? line(x, y, x, y + length) : line(x, y, x + length, y),
      text: "GN/WH 0.75",
    }));
    const box = fc.record({
      x: at,
      y: at,
      width: fc.integer({ min: 5, max: 120 }),
      height: fc.integer({ min: 5, max: 80 }),
    });
    fc.assert(
      fc.property(fc.array(wire, { maxLength: 15 }), fc.array(box, { maxLength: 8 }), (wires, taken) => {
        const placed = placeLabels(wires, taken).flatMap((label) => (label ? [label] : []));
        for (const [i, label] of placed.entries()) {
          for (const other of [...taken, ...placed.slice(i + 1)]) expect(over(label, other)).toBe(false);
          for (const { corners } of wires) {
            const [from, to] = corners as [{ x: number; y: number }, { x: number; y: number }];
            expect(
              over(label, {
                x: from.x - 1,
                y: from.y - 1,
                width: to.x - from.x + 2,
                height: to.y - from.y + 2,
              }),
            ).toBe(false);
          }
        }
      }),
      { numRuns: 150, seed: 6 },
    );
  });
});
