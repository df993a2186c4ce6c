import { describe, expect, test } from "@jest/globals";
import { type AccessStep, stepSchema } from "../../core/access/plan";
import { plugsText, routesText } from "../../core/access/planText";
import { fastenersText } from "../../core/access/typedFastener";
import { problemText } from "../../core/problem/problem";
import { shippedPlan, shippedPlans } from "../../core/testing/shippedPlan";
import { stepFrom } from "./stepForm";

/** The fields a form shows of a step. */
const fieldsOf = (step: AccessStep): Record<string, string> => ({
  id: step.id,
  title: step.title,
  minutes: String(step.minutes),
  slowMinutes: step.slowMinutes === undefined ? "" : String(step.slowMinutes),
  needs: routesText(step.needs ?? []),
  kind: step.kind ?? "",
  fasteners: fastenersText(step.fasteners ?? []),
  plugs: plugsText(step.plugs ?? []),
  tools: (step.tools ?? []).join(", "),
  uses: (step.uses ?? []).join(", "),
  opens: (step.opens ?? []).join(", "),
  hangs: step.hangs ?? "",
  keyed: step.keyed ?? "",
  back: step.back === null ? "-" : (step.back ?? ""),
  way: step.way ?? "",
  tubes: step.tubes === undefined ? "" : String(step.tubes),
  nextPerson: step.nextPerson ? `${step.nextPerson.minutes}, ${step.nextPerson.why}` : "",
  risk: step.risk ? `${step.risk.p * 100}, ${step.risk.minutes}, ${step.risk.what}` : "",
});

test.each(shippedPlans)("%s: a step opened in the form and sent back untouched is the same step", (name) => {
  for (const step of shippedPlan(name).steps) {
    const read = stepFrom(fieldsOf(step), step.cautions ?? []);
    expect(read.ok ? stepSchema.parse(read.value) : read.problems).toEqual(step);
  }
});

describe("what is typed into a step", () => {
  const typed = (more: Record<string, string>, cautions: string[] = []) =>
    stepFrom({ id: "a", title: "A", minutes: "1", ...more }, cautions);

  test("empty fields are unknown", () => {
    expect(typed({ kind: "", tools: " ", back: "" })).toEqual({
      ok: true,
      value: { id: "a", title: "A", minutes: 1 },
    });
  });

  test("a decimal comma, reasons with commas in them, and a dash for what is not refitted", () => {
    const read = typed(
      {
        minutes: "2,5",
        nextPerson: "5, a third screw, self-tapping",
        risk: "8, 25, it tears, badly",
        back: "-",
      },
      ["wheel"],
    );
    expect(read.ok && read.value).toMatchObject({
      minutes: 2.5,
      nextPerson: { minutes: 5, why: "a third screw, self-tapping" },
      risk: { p: 0.08, minutes: 25, what: "it tears, badly" },
      back: null,
      cautions: ["wheel"],
    });
  });

  test.each([
    [{ fasteners: "a few" }, /^fasteners: expected like/],
    [{ nextPerson: "five" }, /^nextPerson: enter minutes/],
    [{ risk: "8, 25" }, /^risk: enter percent/],
  ])("%j is refused by its field", (fields, message) => {
    const read = typed(fields);
    expect(read.ok ? "" : read.problems.map(problemText).join()).toMatch(message);
  });
});
