import { describe, expect, test } from "@jest/globals";
import { learntMinutes, shopPace } from "./stepTimes";

const plan = { steps: [step("a", 6), step("b", 2), step("c", 0)] };
function step(id: string, minutes: number) {
  return { id, title: id, minutes };
}
const took = (id: string, minutes: number) => ({ step: id, minutes });

describe("what a shop's steps take", () => {
  test("is the plan's until something is measured", () => {
    const pace = shopPace(plan, []);
    expect(pace.times).toBe(1);
    expect(learntMinutes(step("a", 6), pace, [])).toMatchObject({ minutes: 6, measured: 0 });
  });

  test("by hand: two measured steps, half as long again and twice as long", () => {
    const measured = [took("a", 9), took("b", 4)];
    const pace = shopPace(plan, measured);
    // (6 × 1 + 1.5 + 2) / (6 + 2) = 9.5 / 8
    expect(pace.times).toBeCloseTo(1.1875, 12);
    expect(pace.sum).toBe("(6 × 1 + 3.5) / (6 + 2)");
    // (3 × 6 × 1.1875 + 9) / (3 + 1) = 30.375 / 4
    const learnt = learntMinutes(step("a", 6), pace, measured);
    expect(learnt.minutes).toBeCloseTo(7.59375, 12);
    expect(learnt.sum).toBe("(3 × 6 × 1.19 + 9) / (3 + 1)");
  });

  test("approaches what was measured with enough of it, and a forgotten tick hardly changes the pace", () => {
    const many = Array.from({ length: 200 }, () => took("a", 12));
    expect(learntMinutes(step("a", 6), shopPace(plan, many), many).minutes).toBeCloseTo(12, 0);
    expect(shopPace(plan, [took("a", 600)]).times).toBeLessThan(1.5);
    expect(shopPace(plan, [took("c", 3), took("gone", 3)])).toMatchObject({ times: 1, measured: 0 });
  });
});
