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
  test("a free wire's label is beside the middle of its longest stretch", () => {
    const corners = [
      { x: 100, y: 0 },
      { x: 100, y: 20 },
      { x: 500, y: 20 },
    ];
    const [box] = placeLabels([{ corners, words: ["W12", "BK/YE"] as const }], []);
    expect(box).not.toBeNull();
    expect(Math.abs((box?.x ?? 0) + (box?.width ?? 0) / 2 - 300)).toBeLessThan(1);
    expect(box).toMatchObject(labelRoom(["W12 BK/YE"]));
  });

  test("goes to the other side, or along, if the first place is taken", () => {
    const wire = { corners: line(100, 0, 100, 400), words: ["W1", "RD"] as const };
    const [first] = placeLabels([wire], []);
    const [second] = placeLabels([wire], [first as Box]);
    expect(second).not.toBeNull();
    expect(over(first as Box, second as Box)).toBe(false);
  });

  test("goes on two lines without room for one, and is the code alone as a last resort", () => {
    const corners = line(100, 0, 100, 200);
    const walls = (left: number, right: number): Box[] => [
      { x: -900, y: -50, width: 1000 - left, height: 300 },
      { x: 100 + right, y: -50, width: 900, height: 300 },
    ];
    const written = (left: number, right: number) =>
      placeLabels([{ corners, words: ["W12", "BK/YE"] }], walls(left, right))[0]?.lines;
    expect(written(100, 5)).toEqual(["W12 BK/YE"]);
    expect(written(60, 5)).toEqual(["W12", "BK/YE"]);
    expect(written(5, 48)).toEqual(["W12"]);
    // Without room beside it, the code goes on the wire.
    const [on] = placeLabels([{ corners, words: ["W12", "BK/YE"] }], walls(22, 22));
    expect(on?.lines).toEqual(["W12"]);
    expect((on?.x ?? 0) + (on?.width ?? 0) / 2).toBe(100);
    expect(written(5, 5)).toBeUndefined();
  });

  test("is left out rather than placed over something", () => {
    const wall = { x: -1000, y: -1000, width: 3000, height: 3000 };
    expect(placeLabels([{ corners: line(100, 0, 100, 400), words: ["W1", "RD"] as const }], [wall])).toEqual([
      null,
    ]);
  });

  test("no label ever crosses another one, another wire or a symbol", () => {
    const at = fc.integer({ min: 0, max: 600 });
    const wire = fc.tuple(at, at, at, fc.boolean()).map(([x, y, length, upright]) => ({
      corners: upright ? line(x, y, x, y + length) : line(x, y, x + length, y),
      words: ["W12", "GN/WH"] as const,
    }));
    const box = fc.record({
      x: at,
      y: at,
      width: fc.integer({ min: 5, max: 120 }),
      height: fc.integer({ min: 5, max: 80 }),
    });
    fc.assert(
      fc.property(fc.array(wire, { maxLength: 15 }), fc.array(box, { maxLength: 8 }), (wires, taken) => {
        const placed = placeLabels(wires, taken).flatMap((label, own) => (label ? [{ ...label, own }] : []));
        for (const [i, label] of placed.entries()) {
          for (const other of [...taken, ...placed.slice(i + 1)]) expect(over(label, other)).toBe(false);
          for (const [wire, { corners }] of wires.entries()) {
            // A code alone may be on its own wire.
            if (wire === label.own && label.lines.join() === "W12") continue;
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
