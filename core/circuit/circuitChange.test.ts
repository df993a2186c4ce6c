import { expect, test } from "@jest/globals";
import { shippedCircuit, shippedIds } from "../testing/shippedCircuit";
import { circuitChanges } from "./circuitChange";

const van = shippedCircuit("whimbrel-four-speed");

test.each(shippedIds)("%s: has no difference from itself", (id) => {
  expect(circuitChanges(shippedCircuit(id), shippedCircuit(id))).toEqual([]);
});

test("what is added, removed and changed is named with its old and new value", () => {
  const after = {
    ...van,
    title: "Another title",
    parts: van.parts.map((part) => (part.id === "F7" && part.kind === "fuse" ? { ...part, amps: 25 } : part)),
    wires: [
      ...van.wires.filter(({ id }) => id !== "W9"),
      { ...van.wires[0], id: "W9a" } as (typeof van.wires)[0],
    ],
  };
  expect(circuitChanges(van, after)).toEqual([
    {
      what: "changed",
      id: "the circuit",
      keys: [{ key: "title", before: JSON.stringify(van.title), after: '"Another title"' }],
    },
    { what: "changed", id: "F7", keys: [{ key: "amps", before: "30", after: "25" }] },
    { what: "gone", id: "W9", keys: [] },
    { what: "added", id: "W9a", keys: [] },
  ]);
  // The change in the other direction.
  expect(circuitChanges(after, van).map(({ what, id }) => `${what} ${id}`)).toEqual([
    "changed the circuit",
    "changed F7",
    "gone W9a",
    "added W9",
  ]);
});

test("a value that appears or disappears is changed from or to nothing", () => {
  const after = { ...van, steering: "right" as const };
  expect(circuitChanges({ ...van, steering: undefined }, after)[0]?.keys).toEqual([
    { key: "steering", before: "nothing", after: '"right"' },
  ]);
});
