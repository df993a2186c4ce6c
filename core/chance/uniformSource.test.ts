import { expect, test } from "@jest/globals";
import { chanceFrom } from "./chance";
import { randomSource } from "./randomSource";
import { normalFrom, uniformSource } from "./uniformSource";

// Written down from the generators before they shared one source: sealed practice files replay from seeds.
test.each([
  ["chance 1", () => chanceFrom(1).uniform(), 0.5254774914355949],
  ["chance 42", () => chanceFrom(42).uniform(), 0.8122404689202085],
  ["random 3", () => randomSource(3).uniform(), 0.7121072203153744],
  ["random 3, normal", () => randomSource(3).normal(), 0.4010041651909076],
])("%s starts with its known values", (_, first, expected) => {
  expect(first()).toBe(expected);
});

test("a seed gives its own sequence, the same every time, between 0 and 1", () => {
  const [one, again, other] = [uniformSource(7), uniformSource(7), uniformSource(8)];
  const stream = Array.from({ length: 1000 }, one);
  expect(Array.from({ length: 1000 }, again)).toEqual(stream);
  expect(Array.from({ length: 1000 }, other)).not.toEqual(stream);
  expect(Math.min(...stream)).toBeGreaterThan(0);
  expect(Math.max(...stream)).toBeLessThan(1);
});

test("normal numbers have mean 0 and deviation 1", () => {
  const normal = normalFrom(uniformSource(5));
  const drawn = Array.from({ length: 20_000 }, normal);
  const mean = drawn.reduce((sum, value) => sum + value, 0) / drawn.length;
  const variance = drawn.reduce((sum, value) => sum + (value - mean) ** 2, 0) / drawn.length;
  // A tolerance of five standard errors each.
  expect(Math.abs(mean)).toBeLessThan(5 / Math.sqrt(20_000));
  expect(Math.abs(variance - 1)).toBeLessThan(5 * Math.sqrt(2 / 20_000));
});
