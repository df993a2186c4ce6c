import { expect, test } from "@jest/globals";
import { directions, nearestIn } from "./walkPoints";

/** A cross of points around the origin, and one further up. */
const places = [
  { x: 0, y: 0 },
  { x: 0, y: -50 },
  { x: 0, y: 50 },
  { x: -50, y: 0 },
  { x: 50, y: 0 },
  { x: 5, y: -120 },
];

test.each([
  ["ArrowUp", 0, 1],
  ["ArrowDown", 0, 2],
  ["ArrowLeft", 0, 3],
  ["ArrowRight", 0, 4],
  ["ArrowUp", 1, 5],
  ["ArrowUp", 5, 5],
  ["ArrowLeft", 3, 3],
])("%s from place %p leads to place %p", (key, from, to) => {
  expect(nearestIn(directions[key] as { x: number; y: number }, from, places)).toBe(to);
});

test("what is mostly sideways is not ahead", () => {
  expect(
    nearestIn({ x: 0, y: -1 }, 0, [
      { x: 0, y: 0 },
      { x: 100, y: -10 },
    ]),
  ).toBe(0);
  expect(nearestIn({ x: 0, y: -1 }, 3, [])).toBe(3);
});

test("from any point of a grid every other can be reached by arrow keys", () => {
  const grid = Array.from({ length: 30 }, (_, i) => ({ x: 40 * (i % 6), y: 70 * Math.floor(i / 6) }));
  const met = new Set([0]);
  const queue = [0];
  for (const at of queue)
    for (const direction of Object.values(directions)) {
      const next = nearestIn(direction, at, grid);
      if (!met.has(next)) queue.push(next);
      met.add(next);
    }
  expect(met.size).toBe(30);
});
