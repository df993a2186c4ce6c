import { describe, expect, test } from "@jest/globals";
import { shippedCircuit } from "../testing/shippedCircuit";
import { planOf, shippedPlan, shippedPlans } from "../testing/shippedPlan";
import type { AccessPlan } from "./plan";
import { editedPlan, type PlanEdit } from "./planEdit";
import { planFindings } from "./planFinding";
import { planTemplates } from "./planTemplate";

const doubts = (plan: AccessPlan) => planFindings(plan, null).map(({ what }) => what);
const edit = (plan: AccessPlan, change: PlanEdit): AccessPlan => {
  const next = editedPlan(plan, change);
  if (!next.ok) throw new Error(next.problems.map(({ message }) => message).join());
  return next.value;
};

test.each(shippedPlans)("%s has no findings with any circuit it covers", (name) => {
  const plan = shippedPlan(name);
  expect(plan.circuits?.length).toBeGreaterThan(0);
  for (const id of plan.circuits ?? []) expect(planFindings(plan, shippedCircuit(id))).toEqual([]);
});

test.each(Object.entries(planTemplates))(
  "the template %s is a plan without findings",
  (id, { title, body }) => {
    expect(doubts(planOf({ format: "airway-plan", version: 1, id, title, ...body }))).toEqual([]);
  },
);

describe("a plan that will trouble whoever follows it", () => {
  const plan = shippedPlan("siskin-glove-box");

  test("a step nothing needs, and a part no way reaches, are named", () => {
    const orphan = edit(plan, { do: "add", step: { id: "roof", title: "Roof off", minutes: 90 } });
    expect(doubts(orphan)).toEqual([{ code: "step-not-needed", about: "Roof off" }]);
    const shut = edit(plan, { do: "target", part: "M1", ways: [] });
    expect(doubts(shut)).toContainEqual({ code: "no-way", about: "M1" });
  });

  test("cutting without a step that disconnects the negative is named", () => {
    const cutting = planOf({
      ...plan,
      steps: plan.steps
        .filter(({ id }) => id !== "negative")
        .map((step) => (step.id === "motor-screws" ? { ...step, kind: "cut" } : step)),
    });
    expect(doubts(cutting).map(({ code }) => code)).toContain("negative-stays-on");
  });

  test("the name of the test before the panels is reserved", () => {
    const taken = editedPlan(plan, { do: "add", step: { id: "test", title: "x", minutes: 1 } });
    expect(taken.ok ? "" : taken.problems[0]?.message).toMatch(/is the test before the panels/);
  });

  test("parts of the circuit that the plan omits, and the reverse", () => {
    const strange = edit(edit(plan, { do: "drop-target", part: "R1" }), {
      do: "target",
      part: "Q7",
      ways: [["tube"]],
    });
    const found = planFindings(strange, shippedCircuit("siskin-five-speed")).map(({ what }) => what);
    expect(found).toEqual(
      expect.arrayContaining([
        { code: "part-not-reached", about: "R1" },
        { code: "no-such-part", about: "Q7" },
      ]),
    );
  });
});

describe("changing a plan", () => {
  const plan = shippedPlan("siskin-glove-box");

  test("a renamed step is renamed wherever it is needed", () => {
    const old = plan.steps.find(({ id }) => id === "glove-box");
    if (!old) throw new Error("no glove box");
    const renamed = edit(plan, { do: "set", id: "glove-box", step: { ...old, id: "locker" } });
    expect(renamed.steps.flatMap(({ needs = [] }) => needs.flat())).not.toContain("glove-box");
    expect(renamed.steps.find(({ id }) => id === "x3-off")?.needs).toEqual([["locker"]]);
  });

  test("a removed step leaves every way it was in, and every part can still be reached", () => {
    const less = edit(plan, { do: "remove", id: "tube" });
    expect(less.steps.find(({ id }) => id === "motor-screws")?.needs).toEqual([["x3-off", "computer"]]);
    expect(doubts(less)).toEqual([]);
  });

  test("a change that makes a circle, or names a missing step, is refused and says which", () => {
    const flap = plan.steps.find(({ id }) => id === "flap");
    const circle = editedPlan(plan, {
      do: "set",
      id: "flap",
      step: { ...flap, needs: [["pack-screws"]] } as never,
    });
    expect(circle.ok ? "" : circle.problems[0]?.message).toMatch(/comes round to itself/);
    const gone = editedPlan(plan, { do: "target", part: "M1", ways: [["nothing"]] });
    expect(gone.ok ? "" : gone.problems[0]?.message).toBe('no step "nothing"');
    expect(editedPlan(plan, { do: "remove", id: "nothing" }).ok).toBe(false);
    expect(
      edit(plan, { do: "add", after: "flap", step: { id: "n", title: "n", minutes: 0 } }).steps[2]?.id,
    ).toBe("n");
    expect(edit(plan, { do: "name", title: "T", where: "there" })).toMatchObject({
      title: "T",
      where: "there",
    });
  });
});
