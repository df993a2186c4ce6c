import { expect, test } from "@jest/globals";
import type { Circuit } from "../../circuit/circuit";
import { shippedCircuit } from "../../testing/shippedCircuit";
import { CircuitCache } from "./circuitCache";

const compiled = (cache: CircuitCache, circuit: Circuit) => {
  const made = cache.compile(circuit);
  if (!made.ok) throw new Error(made.problems[0]?.message);
  return made.value;
};
const whimbrel = shippedCircuit("whimbrel-four-speed");

test("a circuit is recognised by its content, in any object", () => {
  const cache = new CircuitCache(2);
  const first = compiled(cache, whimbrel);
  expect(compiled(cache, whimbrel)).toBe(first);
  expect(compiled(cache, shippedCircuit("whimbrel-four-speed"))).toBe(first);
  expect(compiled(cache, { ...whimbrel, id: "another" })).not.toBe(first);
});

test("the least recently used is dropped, and compiled again when needed", () => {
  const cache = new CircuitCache(2);
  const dunlin = shippedCircuit("dunlin-three-speed");
  const [first, second] = [compiled(cache, whimbrel), compiled(cache, dunlin)];
  expect(compiled(cache, whimbrel)).toBe(first);
  compiled(cache, shippedCircuit("godwit-two-relays"));
  expect(compiled(cache, whimbrel)).toBe(first);
  expect(compiled(cache, dunlin)).not.toBe(second);
});
