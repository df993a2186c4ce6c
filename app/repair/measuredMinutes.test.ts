import { expect, test } from "@jest/globals";
import { measuredMinutes } from "./measuredMinutes";

const at = (minutes: number): Date => new Date(Date.UTC(2026, 10, 24, 9, 0, 0) + minutes * 60_000);

test.each([
  [4, 4, 4],
  [4, 1, 1],
  [4, 0.9, null],
  [4, 24, 24],
  [4, 25, null],
  [0.5, 0.1, null],
])("planned %d, ticked after %d: %p", (planned, after, expected) =>
  expect(measuredMinutes(planned, at(0), at(after))).toBe(expected),
);
