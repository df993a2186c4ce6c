import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { groupsOf } from "./connectivity";

/** The same by graph search: the nodes reachable from each node, with the reference as -1. */
function reached(size: number, ends: readonly number[], from: number): Set<number> {
  const met = new Set([from]);
  const queue = [from];
  for (const node of queue)
    for (let i = 0; i < ends.length; i += 2) {
      const [a, b] = [ends[i] as number, ends[i + 1] as number];
      const other = a === node ? b : b === node ? a : null;
      if (other === null || met.has(other) || other >= size) continue;
      met.add(other);
      queue.push(other);
    }
  return met;
}

describe("connected groups of nodes", () => {
  test("without links each node is its own group, pinned at itself; the reference's is 0 and empty", () => {
    expect(groupsOf(3, [])).toEqual({ of: Int32Array.of(1, 2, 3), count: 4, pins: [0, 1, 2] });
  });

  test("a chain to the reference is group 0", () => {
    const { of, count, pins } = groupsOf(4, [0, 1, 1, -1, 2, 3]);
    expect([...of]).toEqual([0, 0, 1, 1]);
    expect(count).toBe(2);
    expect(pins).toEqual([2]);
  });

  test("on random links it agrees with a graph search", () => {
    const graph = fc.integer({ min: 1, max: 25 }).chain((size) =>
      fc.record({
        size: fc.constant(size),
        links: fc.array(
          fc.tuple(fc.integer({ min: -1, max: size - 1 }), fc.integer({ min: -1, max: size - 1 })),
          {
            maxLength: 40,
          },
        ),
      }),
    );
    fc.assert(
      fc.property(graph, ({ size, links }) => {
        const ends = links.flat();
        const { of, count, pins } = groupsOf(size, ends);
        const grounded = reached(size, ends, -1);
        const nodes = Array.from({ length: size }, (_, node) => node);
        expect(nodes.map((node) => of[node] === 0)).toEqual(nodes.map((node) => grounded.has(node)));
        expect(nodes.map((node) => nodes.map((other) => of[node] === of[other]))).toEqual(
          nodes.map((node) => {
            const own = reached(size, ends, node);
            return nodes.map((other) => own.has(other));
          }),
        );
        expect(pins).toHaveLength(count - 1);
        for (const [i, pin] of pins.entries()) expect(of[pin]).toBe(i + 1);
      }),
      { numRuns: 200, seed: 8 },
    );
  });
});
