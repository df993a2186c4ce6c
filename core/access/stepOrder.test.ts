// The order of steps is common practice, no source.
import { describe, expect, test } from "@jest/globals";
import { shippedPlan } from "../testing/shippedPlan";
import { adaptation } from "./adaptation";
import { fittingSteps } from "./fittingStep";
import { refitting } from "./refitting";
import { quickestRoute } from "./route";
import { placeFittings, type StepTicked, stepsWaitedFor } from "./stepOrder";

const plan = shippedPlan("whimbrel-blower");
const route = quickestRoute(plan, ["M1", "R1"], { batteryOff: true });
const steps = route.ok ? route.value.steps : [];
const ids = steps.map(({ id }) => id);
const fittings = placeFittings(plan, steps, [
  ...fittingSteps("M1", [adaptation("carry-tube"), adaptation("carry-wheel-over")]),
  ...fittingSteps("R1", [adaptation("file-corner"), adaptation("splice-leads", 4)]),
]);
const all = { steps, fittings };
const out = (step: string): StepTicked => ({ step, way: "in" });
const back = (step: string): StepTicked => ({ step, way: "back" });

describe("what a step waits for", () => {
  test("ticked in their own order, out and back, no step waits for another", () => {
    const ticked: StepTicked[] = [];
    for (const step of ids) {
      expect(stepsWaitedFor(all, ticked, out(step))).toEqual([]);
      ticked.push(out(step));
    }
    for (const { id } of refitting(steps, ["M1", "R1"], fittings)) {
      expect([id, stepsWaitedFor(all, ticked, back(id))]).toEqual([id, []]);
      ticked.push(back(id));
    }
  });

  test("a part is not out before what covers it", () => {
    expect(stepsWaitedFor(all, [], out("pack-screws"))).toEqual(["x5-off"]);
  });

  test("a panel does not close over what is still open, nor a part go in before its work is done", () => {
    const off = ids.map(out);
    expect(stepsWaitedFor(all, off, back("lower-panel"))).toContain("x5-off");
    expect(stepsWaitedFor(all, off, back("pack-screws"))).toEqual([
      "fit-R1-splice-leads",
      "fit-R1-file-corner",
    ]);
    const worked = [...off, back("fit-R1-splice-leads"), back("fit-R1-file-corner")];
    expect(stepsWaitedFor(all, worked, back("pack-screws"))).toEqual([]);
  });

  test("work on a new part waits until the old one is out, and a splice for the negative", () => {
    expect(stepsWaitedFor(all, [], back("fit-R1-file-corner"))).toEqual(["pack-screws"]);
    expect(stepsWaitedFor(all, [out("pack-screws")], back("fit-R1-splice-leads"))).toEqual(["negative"]);
  });
});

describe("work on a new part among the refitting steps", () => {
  test("a splice takes the negative off, which no step of this route would ask for", () => {
    const plain = quickestRoute(plan, ["R1"]);
    expect(plain.ok && plain.value.steps.map(({ kind }) => kind)).not.toContain("battery-off");
    expect(ids[0]).toBe("negative");
  });

  test("comes before the step that puts the part in, the splice first", () => {
    const order = refitting(steps, ["M1", "R1"], fittings).map(({ id }) => id);
    const at = (id: string): number => order.indexOf(id);
    expect(at("fit-R1-splice-leads")).toBe(at("pack-screws") - 2);
    expect(at("fit-R1-file-corner")).toBe(at("pack-screws") - 1);
    expect(at("fit-M1-carry-tube")).toBeGreaterThanOrEqual(0);
  });

  test("stands alone where the plan does not reach the part", () => {
    expect(
      refitting(
        [],
        ["M1"],
        placeFittings({ targets: {} }, [], fittingSteps("M1", [adaptation("carry-clip")])),
      ),
    ).toMatchObject([{ id: "fit-M1-carry-clip", work: { does: "adapt" } }]);
  });
});
