// Checked against values from the definition by hand, and against chance: random lines are not a comb.
import { describe, expect, test } from "@jest/globals";
import { randomSource } from "../../chance/randomSource";
import { isOrder, turnComb } from "./turnComb";

const counts = Array.from({ length: 41 }, (_, i) => i + 8);

describe("orders of a turn", () => {
  test("580 Hz of 12 ripples per turn: 48.33 Hz is once per turn, and its multiples are orders; nothing between them is", () => {
    for (const order of [1, 2, 5, 11, 13, 19]) {
      expect(isOrder(580, 12, (order * 580) / 12, 0.2)).toBe(true);
      expect(isOrder(580, 12, ((order + 0.5) * 580) / 12, 0.2)).toBe(false);
    }
  });

  test("the tolerance of an order grows with its frequency", () => {
    expect(isOrder(580, 12, 580 / 12 + 0.4, 0.2)).toBe(false);
    expect(isOrder(580, 12, 5 * 580 + 0.4, 0.2)).toBe(true);
  });
});

describe("the turn that lines support", () => {
  test.each([8, 12, 14, 22, 30, 46])("is the one of %p ripples whose orders they are", (perTurn) => {
    const once = 911 / perTurn;
    const lines = [1, 2, 3, 5, 7].map((order) => order * once);
    const found = turnComb(911, lines, counts, 0.2);
    expect(found?.perTurn).toBe(perTurn);
    expect(found?.evidence).toBeGreaterThan(7);
  });

  test("one line with a probability of one in a hundred, one count: the logarithm of the likelihood ratio, by hand", () => {
    // Ten ripples per turn at 500 Hz: orders every 50 Hz, each matched within 0.2 (1 + 0.1) Hz on both sides.
    const chance = (2 * 0.2 * 1.1) / 50;
    expect(turnComb(500, [50], [10], 0.2)?.evidence).toBeCloseTo(Math.log(0.7 / chance + 0.3), 10);
    expect(turnComb(500, [75], [10], 0.2)?.evidence).toBeCloseTo(Math.log(0.3), 10);
    expect(turnComb(500, [50], [10, 11], 0.2)?.evidence).toBeCloseTo(
      Math.log(0.7 / chance + 0.3) - Math.log(2),
      10,
    );
  });

  test("random lines support none", () => {
    const { uniform } = randomSource(31);
    let surely = 0;
    for (let draw = 0; draw < 300; draw++) {
      const humps = 150 + 1500 * uniform();
      const lines = Array.from({ length: 8 }, () => 5 + 2 * humps * uniform());
      if ((turnComb(humps, lines, counts, 0.2)?.evidence ?? 0) > 7) surely += 1;
    }
    expect(surely).toBeLessThan(3);
  });

  test("without a possible count there is none", () => {
    expect(turnComb(500, [50], [], 0.2)).toBeNull();
  });
});
