import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { fastenerText, screwsBack, screwsOut, toolFor } from "./fastener";
import type { AccessStep } from "./plan";
import { callsBefore, plannedScrews, type TrayEntry, trayOf } from "./tray";

const steps: readonly AccessStep[] = [
  {
    id: "box",
    title: "Remove the glove box",
    minutes: 3,
    fasteners: [{ count: 6, head: "phillips", into: "plastic" }],
  },
  {
    id: "motor",
    title: "Motor out",
    minutes: 5,
    fasteners: [
      { count: 2, head: "hex", size: "5.5 mm", into: "plastic" },
      { count: 1, head: "hex", size: "5.5 mm", into: "metal", loosenOnly: true },
      { count: 1, head: "torx", size: "T20", into: "plastic", back: 0, hidden: true },
    ],
  },
];
const tick = (step: string, way: "in" | "back", screws: number): TrayEntry => ({ step, way, screws });

test("fasteners in words, the tool that turns them, and the number that goes into the tray", () => {
  const [two, loose, gone] = steps[1]?.fasteners ?? [];
  if (!two || !loose || !gone) throw new Error("the step lost its fasteners");
  expect([two, loose, gone].map(fastenerText)).toEqual([
    "2 × 5.5 mm into plastic",
    "1 × 5.5 mm into metal (loosened only, the ear is slotted)",
    "1 × T20 into plastic (hidden)",
  ]);
  expect([two, gone].map(toolFor)).toEqual(["5.5 mm socket", "T20 driver"]);
  expect([two, loose, gone].map(screwsOut)).toEqual([2, 0, 1]);
  expect([two, loose, gone].map(screwsBack)).toEqual([2, 0, 0]);
});

describe("the tray", () => {
  test("never holds fewer than no screws, and names the step that got too many back", () => {
    const [first] = steps.filter((step) => plannedScrews(step).out > 0);
    const id = first?.id ?? "";
    const over = [tick(id, "in", 1), tick(id, "back", 3)];
    expect(trayOf(steps, over)).toMatchObject({ lying: 0, out: 1, back: 3 });
    expect(trayOf(steps, over).calls).toEqual(
      expect.arrayContaining([expect.objectContaining({ kind: "short", screws: 2 })]),
    );
  });

  test("holds what is removed and not refitted; what stays out for good is not missed", () => {
    const out = [tick("box", "in", 6), tick("motor", "in", 3)];
    expect(trayOf(steps, out)).toMatchObject({ lying: 9, out: 9, back: 0, calls: [] });
    const back = [...out, tick("motor", "back", 2), tick("box", "back", 6)];
    expect(trayOf(steps, back)).toMatchObject({ lying: 0, calls: [] });
  });

  test("reports a left-over screw before the panel over it closes, with the step it belongs to", () => {
    const entries = [tick("box", "in", 6), tick("motor", "in", 3), tick("motor", "back", 1)];
    const [call] = callsBefore(steps, entries, "box");
    expect(call).toMatchObject({ step: { id: "motor" }, kind: "left-over", screws: 1 });
    expect(callsBefore(steps, entries, "motor")).toEqual([]);
  });

  test("reports a screw too many: another place will be short", () => {
    const entries = [tick("box", "in", 6), tick("motor", "in", 3), tick("motor", "back", 4)];
    expect(callsBefore(steps, entries, "box")[0]).toMatchObject({ kind: "short", screws: 1 });
  });

  test("reports fewer screws removed than the plan says, and uses the last tick of a step", () => {
    const entries = [tick("box", "in", 5), tick("box", "in", 6), tick("motor", "in", 2)];
    expect(trayOf(steps, entries).calls).toMatchObject([
      { step: { id: "motor" }, kind: "not-as-planned", screws: 2 },
    ]);
  });

  test("is never negative: a refitting counts only while its removal is ticked", () => {
    expect(trayOf(steps, [tick("box", "back", 6)])).toMatchObject({ lying: 0, out: 0, back: 0, calls: [] });
  });

  test("is empty and without warnings after any job done by its plan", () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(steps.map(({ id }) => id)), (order) => {
        const planned = new Map(steps.map((step) => [step.id, plannedScrews(step)]));
        const entries = order.flatMap((id) => [
          tick(id, "in", planned.get(id)?.out ?? 0),
          tick(id, "back", planned.get(id)?.back ?? 0),
        ]);
        expect(trayOf(steps, entries)).toMatchObject({ lying: 0, calls: [] });
      }),
    );
  });
});
