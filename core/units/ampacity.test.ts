import { describe, expect, test } from "@jest/globals";
import { ampacity } from "./ampacity";

describe("the current a wire can carry continuously", () => {
  // Rows of the handbooks' table, from memory.
  test.each([
    [0.5, 11],
    [1, 19],
    [2.5, 32],
    [4, 42],
    [25, 129],
  ])("%p mm²: %p A", (mm2, amps) => expect(ampacity(mm2)).toBeCloseTo(amps, 6));

  test("increases with the cross-section, between the rows and beyond them", () => {
    const sizes = [0.2, 0.35, 0.4, 0.6, 0.9, 1.2, 2, 3, 5, 8, 12, 20, 30, 50, 70];
    for (const [i, size] of sizes.slice(1).entries())
      expect(ampacity(size)).toBeGreaterThan(ampacity(sizes[i] as number));
  });
});
