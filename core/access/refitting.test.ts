// The rules are the trade's: common practice, no source.
import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { problemText } from "../problem/problem";
import { shippedPlan, type shippedPlans } from "../testing/shippedPlan";
import { type AccessStep, testStepId } from "./plan";
import { refitting } from "./refitting";
import { quickestRoute } from "./route";
import { stepKinds } from "./stepKind";

const backTo = (name: (typeof shippedPlans)[number], part: string) => {
  const route = quickestRoute(shippedPlan(name), [part]);
  if (!route.ok) throw new Error(route.problems.map(problemText).join());
  return refitting(route.value.steps, [part]);
};
const step = (id: string, more: Partial<AccessStep> = {}): AccessStep => ({
  id,
  title: id,
  minutes: 1,
  ...more,
});

test("the last step removed is refitted first, and the negative last of all, for any steps", () => {
  const any = fc.array(fc.record({ kind: fc.constantFrom(undefined, ...stepKinds), none: fc.boolean() }), {
    maxLength: 12,
  });
  fc.assert(
    fc.property(any, (made) => {
      let negative = false;
      const steps = made.flatMap(({ kind, none }, i) => {
        if (kind === "battery-off") {
          if (negative) return [];
          negative = true;
        }
        return [step(`s${i}`, { kind, ...(none && kind !== "battery-off" ? { back: null } : {}) })];
      });
      const back = refitting(steps, ["M1"]).map(({ id }) => id);
      const own = back.filter((id) => id !== testStepId);
      const expected = [...steps].reverse().filter((one) => one.back !== null && one.kind !== "battery-off");
      expect(own.slice(0, expected.length)).toEqual(expected.map(({ id }) => id));
      if (steps.length > 0) expect(back.filter((id) => id === testStepId)).toHaveLength(1);
      const off = steps.find(({ kind }) => kind === "battery-off");
      if (off) expect(own.at(-1)).toBe(off.id);
      // After the test only closing panels, a tie and the negative are left.
      const after = back.slice(back.indexOf(testStepId) + 1);
      for (const id of after)
        expect(["panel", "bracket", "tie", "battery-off"]).toContain(
          steps.find((one) => one.id === id)?.kind,
        );
    }),
    { numRuns: 400, seed: 3 },
  );
});

describe("how each step goes back", () => {
  test("screws into plastic: keyed position, easiest first, all by hand, even passes, an eighth to a quarter turn", () => {
    const motor = backTo("siskin-glove-box", "R1").find(({ id }) => id === "motor-screws");
    expect(motor?.screws).toBe(4);
    expect(motor?.how).toEqual([
      { rule: "keyed", where: "tab in the notch at the bottom" },
      { rule: "all-by-hand", screws: 4 },
      { rule: "into-plastic" },
    ]);
  });

  test("a cut leaves no swarf, and what was used up is replaced", () => {
    const back = backTo("godwit-moulded", "M1");
    expect(back[0]?.how[0]).toEqual({ rule: "clear-swarf" });
    expect(back[0]?.how).toEqual(
      expect.arrayContaining([
        { rule: "new", what: "adaptor ring" },
        { rule: "new", what: "sealing strip" },
      ]),
    );
    expect(back[0]?.cautions).toContain("knife");
  });

  test("a plug clicks and holds a tug, a hanging unit is not pinched, a tube is on", () => {
    const how = backTo("siskin-glove-box", "R1").flatMap((one) => one.how);
    expect(how).toEqual(
      expect.arrayContaining([
        { rule: "plug-clicks", plug: "X5" },
        { rule: "tubes-on", tubes: 1 },
        { rule: "hang-up", what: "the body computer" },
      ]),
    );
  });

  test("a trimmed ear leaves a screw over for good; a slotted ear slides home", () => {
    const cut = refitting(
      [step("a", { fasteners: [{ count: 3, head: "hex", into: "metal", back: 2 }] })],
      [],
    );
    expect(cut[0]).toMatchObject({ screws: 2 });
    expect(cut[0]?.how).toContainEqual({ rule: "stays-out", screws: 1 });
    expect(backTo("godwit-moulded", "R2")[0]?.how).toContainEqual(
      expect.objectContaining({ rule: "slide-home" }),
    );
  });
});

test("what covers the battery is refitted after its negative, which is otherwise last", () => {
  const steps = [
    step("cover", { kind: "panel" }),
    step("negative", { kind: "battery-off", needs: [["cover"]] }),
    step("motor", { kind: "out", needs: [["negative"]] }),
  ];
  expect(refitting(steps, []).map(({ id }) => id)).toEqual(["motor", testStepId, "negative", "cover"]);
});

describe("the test before the panels", () => {
  test("comes when every plug is connected, and explains how with the negative off", () => {
    const back = backTo("godwit-moulded", "M1").map(({ id }) => id);
    expect(back).toEqual(["cut-out", "x2-off", testStepId, "side-trim", "glove-box", "negative"]);
    const how = backTo("godwit-moulded", "M1").find(({ id }) => id === testStepId)?.how;
    expect(how).toContainEqual({ rule: "negative-on-for-test" });
  });

  test("waits for the battery if the battery was in the way", () => {
    const back = backTo("dunlin-bulkhead", "M1").map(({ id }) => id);
    expect(back.slice(-3)).toEqual(["hold-down", "negative", testStepId]);
  });

  test("is left out if nothing was removed", () => expect(refitting([], ["M1"])).toEqual([]));
});
