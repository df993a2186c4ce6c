import { describe, expect, test } from "@jest/globals";
import type { Reading } from "../../predict/reading";
import { heard, repairIn, shippedEngine } from "../../testing/shippedCircuit";
import { believe, repairBelief } from "../belief/belief";
import { beliefHistory, groupOf, suspectGroups } from "./beliefHistory";

const engine = shippedEngine("whimbrel-four-speed");
const plainly = { repairs: [] };
const readings: Reading[] = [
  ...heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
  { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
];

describe("how the belief changed", () => {
  const histories = beliefHistory(engine, readings, plainly);
  /** Of a part, including its mechanical faults. */
  const of = (part: string, own = histories): number[] => {
    const groups = [...own].filter(([{ repair }]) => repair === repairIn(engine, part));
    return readings
      .map((_, step) => groups.reduce((sum, [, p]) => sum + (p[step] ?? 0), 0))
      .concat(groups.reduce((sum, [, p]) => sum + (p[readings.length] ?? 0), 0));
  };

  test("each step is the belief in the readings so far, and sums to 1", () => {
    for (let taken = 0; taken <= readings.length; taken++) {
      const whole = repairBelief(engine, believe(engine, readings.slice(0, taken)));
      for (const part of ["R1", "M1", "unknown"])
        expect(of(part)[taken]).toBeCloseTo(whole.get(repairIn(engine, part)) ?? -1, 12);
      const sum = [...histories.values()].reduce((total, p) => total + (p[taken] as number), 0);
      expect(sum).toBeCloseTo(1, 9);
    }
  });

  test("the present belief may be passed in, and earlier steps stay the same", () => {
    const [unlisted, other] = suspectGroups(engine).all;
    if (!unlisted || !other) throw new Error("no groups");
    const now = new Map([
      [other, 0.75],
      [unlisted, 0.25],
    ]);
    const own = [...readings, { test: "spin", at: "M1", seen: "free" } as const];
    const given = beliefHistory(engine, own, plainly, now);
    for (const [group, p] of histories) {
      expect(given.get(group)?.slice(0, -1)).toEqual(p);
      expect(given.get(group)?.at(-1)).toBe(now.get(group) ?? 0);
    }
  });

  test("the dead low speeds raise the pack, the working top speed clears the motor", () => {
    expect(of("R1").at(-1)).toBeGreaterThan(0.9);
    expect(of("R1")[3]).toBeGreaterThan(of("R1")[0] as number);
    expect(of("M1")[4]).toBeLessThan((of("M1")[3] as number) / 2);
  });

  test("a noise raises the faults that an ear can hear, separately from the rest of the same motor", () => {
    const rumble: Reading = { test: "listen", heard: true, key: "run", setting: "4", seen: "rumble" };
    const group = groupOf(suspectGroups(engine), repairIn(engine, "M1"), ["bearing-worn"]);
    expect(group?.mechanical).toBe(true);
    const [before = 0, after = 0] = (group && beliefHistory(engine, [rumble], plainly).get(group)) ?? [];
    expect(after).toBeGreaterThan(2 * before);
  });

  test("requested again it is the same, and deleting and restoring in between changes nothing", () => {
    const first = beliefHistory(engine, readings, plainly);
    const without = beliefHistory(engine, readings.slice(0, -1), plainly);
    expect([...beliefHistory(engine, readings, plainly)]).toEqual([...first]);
    for (const [group, p] of without) expect(p).toEqual(first.get(group)?.slice(0, -1));
    const counts = [{ kind: "motor", mode: "worn-brushes", n: 500 }];
    const counted = beliefHistory(engine, readings, { repairs: [], counts });
    expect(of("M1", counted)[0]).toBeGreaterThan(of("M1", first)[0] ?? 1);
  });
});
