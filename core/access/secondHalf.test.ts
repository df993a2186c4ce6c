// What follows the verdict on real jobs, on made-up vehicles: common practice, no source.
import { describe, expect, test } from "@jest/globals";
import { planOf } from "../testing/shippedPlan";
import { adaptation } from "./adaptation";
import { fittingSteps } from "./fittingStep";
import type { AccessPlan, AccessStep } from "./plan";
import { type BackStep, type PlacedFitting, refitting } from "./refitting";
import { quickestRoute, type Route } from "./route";
import { placeFittings, type StepTicked, stepsWaitedFor } from "./stepOrder";
import { callsBefore, plannedSorts, screwsIn, type TrayEntry, trayOf, unexplained } from "./tray";
import { parseFasteners } from "./typedFastener";

const screws = (text: string): AccessStep["fasteners"] => {
  const read = parseFasteners(text);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return read.value;
};
const plan = (steps: readonly object[], targets: AccessPlan["targets"]): AccessPlan =>
  planOf({ format: "airway-plan", version: 1, id: "made-up", steps, targets });
const routeTo = (own: AccessPlan, parts: readonly string[], batteryOff = false): Route => {
  const route = quickestRoute(own, parts, { batteryOff });
  if (!route.ok) throw new Error(route.problems[0]?.message);
  return route.value;
};
const backOf = (
  route: Route,
  parts: readonly string[],
  fittings: readonly PlacedFitting[] = [],
): BackStep[] => refitting(route.steps, parts, fittings);
const rules = (steps: readonly BackStep[], id: string): readonly unknown[] =>
  steps.find((own) => own.id === id)?.how ?? [];
const ticks = (steps: readonly AccessStep[], way: "in" | "back"): TrayEntry[] =>
  steps.map((step) => ({
    step: step.id,
    way,
    screws: way === "in" ? screwsIn(plannedSorts(step, "in")) : screwsIn(plannedSorts(step, "back")),
  }));

describe("a lower cover with a lamp in it, and a motor on a twist lock", () => {
  const own = plan(
    [
      {
        id: "cover",
        title: "Lower the cover",
        minutes: 1,
        kind: "panel",
        fasteners: screws("3 push clips"),
        plugs: [{ id: "lamp", tab: "press" }],
      },
      {
        id: "plug",
        title: "Unplug the motor",
        minutes: 0.5,
        kind: "plug",
        needs: [["cover"]],
        plugs: [{ id: "X2" }],
      },
      {
        id: "twist",
        title: "Press the tab and twist the motor out",
        minutes: 1,
        kind: "twist",
        needs: [["plug"]],
        keyed: "tab at the lock",
      },
    ],
    { M1: [["twist"]] },
  );
  const route = routeTo(own, ["M1"]);

  test("goes in three steps without a screw, and the lamp's plug must click before the cover is up", () => {
    expect(route.steps.map(({ id }) => id)).toEqual(["cover", "plug", "twist"]);
    const back = backOf(route, ["M1"]);
    expect(back.map(({ id }) => id)).toEqual(["twist", "plug", "test", "cover"]);
    expect(rules(back, "cover")).toContainEqual({ rule: "plug-clicks", plug: "lamp" });
    expect(rules(back, "twist")).toContainEqual({ rule: "keyed", where: "tab at the lock" });
    expect(route.tools).toEqual(["trim lever"]);
  });

  test("three clips are three clips, whatever else lies in the tray", () => {
    const tray = trayOf(route.steps, ticks(route.steps, "in"));
    expect(tray.sorts).toMatchObject([{ sort: "push clip", lying: 3 }]);
  });
});

describe("negative off, a hidden fifth screw, and a screw that falls behind the carpet", () => {
  const own = plan(
    [
      { id: "negative", title: "Negative off", minutes: 3, kind: "battery-off" },
      {
        id: "carpet",
        title: "Fold the carpet back",
        minutes: 1,
        kind: "panel",
        fasteners: screws("2 PH2 into plastic"),
      },
      {
        id: "motor",
        title: "Motor out",
        minutes: 5,
        kind: "out",
        needs: [["negative", "carpet"]],
        fasteners: screws("4 screws 7 mm into plastic"),
      },
    ],
    { M1: [["motor"]] },
  );
  const { steps } = routeTo(own, ["M1"]);
  const seven = "7 mm screw";

  test("five where the plan says four is told, and all five have to go back", () => {
    const out = [...ticks(steps, "in").slice(0, -1), { step: "motor", way: "in", screws: 5 } as const];
    expect(trayOf(steps, out).calls).toMatchObject([{ kind: "not-as-planned", screws: 5 }]);
    const four = [...out, { step: "motor", way: "back", screws: 4 } as const];
    expect(callsBefore(steps, four, "carpet")).toMatchObject([{ kind: "left-over", screws: 1 }]);
  });

  test("the lost one is explained by where it fell; found again, it has to go in after all", () => {
    const three = [...ticks(steps, "in"), ...ticks(steps, "back")].map((tick) =>
      tick.step === "motor" && tick.way === "back" ? { ...tick, screws: 3 } : tick,
    );
    const lost = [{ kind: "lost", sort: seven, count: 1 } as const];
    expect(unexplained(trayOf(steps, three))).toEqual([{ sort: seven, count: 1 }]);
    expect(unexplained(trayOf(steps, three, lost))).toEqual([]);
    expect(
      unexplained(trayOf(steps, three, [...lost, { kind: "found", sort: seven, count: 1 }])),
    ).toHaveLength(1);
  });
});

describe("a computer on its bracket, and a resistor behind the motor with two screws only loosened", () => {
  const own = plan(
    [
      { id: "box", title: "Glove box", minutes: 3, kind: "panel", fasteners: screws("6 PH2 into plastic") },
      {
        id: "computer",
        title: "Unhook the computer",
        minutes: 2,
        kind: "bracket",
        needs: [["box"]],
        fasteners: screws("2 nuts 10 mm"),
        hangs: "the computer",
      },
      {
        id: "motor",
        title: "Motor out",
        minutes: 4,
        kind: "out",
        needs: [["computer"]],
        fasteners: screws("3 hex 5.5 mm plastic"),
        keyed: "notch down",
      },
      {
        id: "pack",
        title: "Slide the pack out",
        minutes: 2,
        kind: "out",
        needs: [["motor"]],
        fasteners: screws("2 hex 7 mm plastic loosened"),
        cautions: ["hot-pack"],
      },
    ],
    { M1: [["motor"]], R1: [["pack"]] },
  );
  const route = routeTo(own, ["R1"]);
  const back = backOf(route, ["R1"]);

  test("the pack needs the motor out, and what hangs by its wires is hung up again", () => {
    expect(route.steps.map(({ id }) => id)).toEqual(["box", "computer", "motor", "pack"]);
    expect(rules(back, "computer")).toContainEqual({ rule: "hang-up", what: "the computer" });
  });

  test("loosened screws never lie in the tray, and are slid home and tightened", () => {
    const pack = route.steps.find(({ id }) => id === "pack");
    expect(pack && [...plannedSorts(pack, "in"), ...plannedSorts(pack, "back")]).toEqual([]);
    expect(rules(back, "pack")).toMatchObject([{ rule: "slide-home" }]);
  });

  test("the motor goes in after the pack behind it, and the panel after everything", () => {
    const off: StepTicked[] = route.steps.map(({ id }) => ({ step: id, way: "in" }));
    const steps = { steps: route.steps, fittings: [] };
    expect(stepsWaitedFor(steps, off, { step: "motor", way: "back" })).toEqual(["pack"]);
    expect(stepsWaitedFor(steps, off, { step: "box", way: "back" })).toEqual(["computer"]);
  });
});

describe("tube and wheel carried over, a corner filed, a worn lead spliced", () => {
  const own = plan(
    [
      { id: "negative", title: "Negative off", minutes: 3, kind: "battery-off" },
      { id: "plug", title: "Unplug the motor", minutes: 0.5, kind: "plug", plugs: [{ id: "X2" }] },
      {
        id: "motor",
        title: "Motor out",
        minutes: 4,
        kind: "out",
        needs: [["plug"]],
        fasteners: screws("3 T20 into plastic"),
        tubes: 1,
      },
    ],
    { M1: [["motor"]], X2: [["plug"]] },
  );

  test("each is a step of its own before the motor goes in, with its tools", () => {
    const route = routeTo(own, ["M1"]);
    const work = [adaptation("carry-tube"), adaptation("press-wheel-over"), adaptation("file-corner")];
    const fittings = placeFittings(own, route.steps, fittingSteps("M1", work));
    const back = backOf(route, ["M1"], fittings).map(({ id }) => id);
    expect(back).toEqual([
      "fit-M1-carry-tube",
      "fit-M1-press-wheel-over",
      "fit-M1-file-corner",
      "motor",
      "plug",
      "test",
    ]);
    // Nothing of this touches the car's wires.
    expect(route.steps.map(({ id }) => id)).not.toContain("negative");
  });

  test("leads that were found worn are spliced with the negative off, which goes back last", () => {
    const route = routeTo(own, ["M1"], true);
    const fittings = placeFittings(own, route.steps, fittingSteps("M1", [adaptation("splice-leads", 2)]));
    const back = backOf(route, ["M1"], fittings);
    expect(route.steps[0]?.id).toBe("negative");
    expect(back[0]).toMatchObject({ id: "fit-M1-splice-leads", cautions: ["bare-positive"] });
    // With no panel to close, the test comes last.
    expect(back.map(({ id }) => id).slice(-2)).toEqual(["negative", "test"]);
  });
});
