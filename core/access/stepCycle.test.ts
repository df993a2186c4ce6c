import { describe, expect, test } from "@jest/globals";
import type { AccessStep } from "./plan";
import { cyclesOf, presentTicks } from "./stepCycle";
import { type TrayEntry, trayOf, unexplained } from "./tray";

const tick = (step: string, way: "in" | "back", screws: number, round = 1): TrayEntry => ({
  step,
  way,
  screws,
  round,
});
const step: AccessStep = {
  id: "cover",
  title: "lower cover",
  kind: "cover",
  minutes: 2,
  back: 2,
  fasteners: [{ kind: "screw", drive: "Phillips", count: 4 }],
} as unknown as AccessStep;

// Common practice, no source: the check is done before the panels go back, so some are still off when it fails.
describe("a step over several rounds", () => {
  const first = [tick("cover", "in", 4), tick("cover", "back", 4), tick("motor", "in", 3)];

  test("begins anew once it was put back, and stays off if it was not", () => {
    expect(presentTicks(first, 2)).toEqual([tick("motor", "in", 3)]);
    const second = [...first, tick("cover", "in", 4, 2)];
    expect(presentTicks(second, 2).map(({ step: id, round }) => [id, round])).toEqual([
      ["motor", 1],
      ["cover", 2],
    ]);
    expect(cyclesOf(second, "cover")).toHaveLength(2);
    expect(cyclesOf(second, "cover")[1]?.put).toBeNull();
  });

  test("a step off since the first round and put back in the second is one removal", () => {
    const ticks = [...first, tick("motor", "back", 3, 2)];
    expect(cyclesOf(ticks, "motor")).toEqual([
      { taken: tick("motor", "in", 3), put: tick("motor", "back", 3, 2) },
    ]);
    expect(presentTicks(ticks, 2).map(({ step: id, way }) => [id, way])).toEqual([
      ["motor", "in"],
      ["motor", "back"],
    ]);
    expect(presentTicks(ticks, 3)).toEqual([]);
  });

  test("a screw left over in the first round is still missing in the second", () => {
    const ticks = [
      tick("cover", "in", 4),
      tick("cover", "back", 3),
      tick("cover", "in", 3, 2),
      tick("cover", "back", 3, 2),
    ];
    const tray = trayOf([step], ticks);
    expect([tray.out, tray.back, tray.lying]).toEqual([7, 6, 1]);
    expect(unexplained(tray).map(({ count }) => count)).toEqual([1]);
  });
});
