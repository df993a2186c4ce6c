import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { fastenerText, screwsBack, screwsOut, toolFor } from "./fastener";
import type { AccessStep } from "./plan";
import { callsBefore, plannedSorts, screwsIn, type TrayEntry, trayOf, unexplained } from "./tray";

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
    const [first] = steps.filter((step) => plannedSorts(step, "in").length > 0);
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
        const planned = (id: string, way: "in" | "back"): number =>
          screwsIn(steps.flatMap((step) => (step.id === id ? plannedSorts(step, way) : [])));
        const entries = order.flatMap((id) => [
          tick(id, "in", planned(id, "in")),
          tick(id, "back", planned(id, "back")),
        ]);
        expect(trayOf(steps, entries)).toMatchObject({ lying: 0, calls: [] });
      }),
    );
  });
});

describe("the tray by sort", () => {
  const mixed: readonly AccessStep[] = [
    {
      id: "panel",
      title: "Panel",
      minutes: 2,
      fasteners: [
        { count: 3, kind: "push-clip" },
        { count: 2, head: "torx", size: "T20" },
      ],
    },
    {
      id: "motor",
      title: "Moulded motor",
      minutes: 20,
      fasteners: [{ count: 4, kind: "nut", size: "8 mm", instead: { head: "torx", size: "T25" } }],
    },
  ];
  const done = [tick("panel", "in", 5), tick("motor", "in", 4)];

  test("holds each sort apart, and knows the new ones that go in instead", () => {
    expect(plannedSorts(mixed[1] as AccessStep, "back")).toEqual([{ sort: "T25 screw", count: 4 }]);
    expect(trayOf(mixed, done).sorts.map(({ sort, lying }) => [sort, lying])).toEqual([
      ["push clip", 3],
      ["T20 screw", 2],
      ["8 mm nut", 4],
    ]);
    const all = trayOf(mixed, [...done, tick("motor", "back", 4), tick("panel", "back", 5)]);
    expect(all.lying).toBe(0);
    expect(unexplained(all)).toEqual([]);
  });

  test("a screw lost behind the carpet is open until it is found, replaced by a new one, or refitting ends without it", () => {
    const counts = [
      { sort: "push clip", count: 3 },
      { sort: "T20 screw", count: 1 },
    ];
    const entries: TrayEntry[] = [tick("panel", "in", 5), { ...tick("panel", "back", 4), counts }];
    const sort = "T20 screw";
    expect(unexplained(trayOf(mixed, entries))).toEqual([{ sort, count: 1 }]);
    const lost = [{ kind: "lost", sort, count: 1 } as const];
    expect(unexplained(trayOf(mixed, entries, lost))).toEqual([]);
    const found = [...lost, { kind: "found", sort, count: 1 } as const];
    expect(unexplained(trayOf(mixed, entries, found))).toEqual([{ sort, count: 1 }]);
    // Lost, and a new one put in its place: every screw is explained again.
    const fresh = [...lost, { kind: "new", sort, count: 1 } as const];
    expect(unexplained(trayOf(mixed, [tick("panel", "in", 5), tick("panel", "back", 5)], fresh))).toEqual([]);
    expect(unexplained(trayOf(mixed, entries, [{ kind: "spare", sort, count: 1 }]))).toEqual([]);
  });

  test("never shows fewer than none of a sort, whatever is ticked and noted", () => {
    const note = fc.record({
      kind: fc.constantFrom(...(["lost", "found", "new", "spare"] as const)),
      sort: fc.constantFrom("push clip", "T20 screw", "8 mm nut"),
      count: fc.nat(5),
    });
    const entry = fc.record({
      step: fc.constantFrom("panel", "motor"),
      way: fc.constantFrom(...(["in", "back"] as const)),
      screws: fc.nat(9),
    });
    fc.assert(
      fc.property(fc.array(entry), fc.array(note), (entries, notes) => {
        const tray = trayOf(mixed, entries, notes);
        expect(Math.min(0, tray.lying, ...tray.sorts.map(({ lying }) => lying))).toBe(0);
      }),
    );
  });
});
