import { expect, test } from "@jest/globals";
import { groupsOf } from "./connectivity";
import { GroupSets } from "./groupSets";

// Nodes 0 and 1 connect to the reference, 2 and 3 to each other, 4 and 5 to nothing.
const groups = groupsOf(6, [0, -1, 1, 0, 2, 3]);

test("each group is a set of its own until something joins it; the reference's stays 0", () => {
  const sets = new GroupSets();
  sets.begin(groups);
  const floating = new Uint8Array(6);
  expect(sets.markFloating(floating)).toBe(true);
  expect([...floating]).toEqual([0, 0, 1, 1, 1, 1]);
  expect(sets.rootOf(-1)).toBe(0);
  expect(sets.rootOf(2)).toBe(sets.rootOf(3));
  expect(sets.rootOf(4)).not.toBe(sets.rootOf(5));
});

test("a chain of joins connects what it reaches, in any order", () => {
  for (const edges of [
    [
      { a: 4, b: 5 },
      { a: 3, b: 4 },
      { a: 1, b: 2 },
    ],
    [
      { a: 1, b: 2 },
      { a: 3, b: 4 },
      { a: 4, b: 5 },
    ],
    [
      { a: -1, b: 5 },
      { a: 5, b: 4 },
      { a: 4, b: 2 },
      { a: 2, b: 3 },
    ],
  ]) {
    const sets = new GroupSets();
    sets.begin(groups);
    for (const edge of edges) sets.join(edge);
    const floating = new Uint8Array(6).fill(1);
    expect(sets.markFloating(floating)).toBe(false);
    expect([...floating]).toEqual([0, 0, 0, 0, 0, 0]);
    for (let node = 0; node < 6; node++) expect(sets.isTied(node)).toBe(true);
  }
});

test("after a restart nothing of before is left, and an empty edge joins nothing", () => {
  const sets = new GroupSets();
  sets.begin(groups);
  sets.join({ a: 0, b: 4 });
  sets.begin(groups);
  sets.join(null);
  expect(sets.isTied(4)).toBe(false);
});
