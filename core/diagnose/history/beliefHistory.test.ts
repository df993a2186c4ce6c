import { describe, expect, test } from "@jest/globals";
import { isMechanical } from "../../motor/mechanicalMode";
import type { Reading } from "../../predict/reading";
import { heard, shippedEngine } from "../../testing/shippedCircuit";
import { believe, repairBelief } from "../belief/belief";
import { beliefHistory, suspectGroups } from "./beliefHistory";

const engine = shippedEngine("whimbrel-four-speed");
const plainly = { repairs: [] };
const readings: Reading[] = [
  ...heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
  { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
];

describe("how the belief moved", () => {
  const histories = beliefHistory(
    engine,
    readings,
    plainly,
    suspectGroups(engine, ({ repair }) => repair),
  );
  const of = (group: string) => histories.get(group) ?? [];

  test("each step is the belief in the readings up to there, and sums to 1", () => {
    for (let taken = 0; taken <= readings.length; taken++) {
      const whole = repairBelief(engine, believe(engine, readings.slice(0, taken)));
      for (const [repair, p] of histories) expect(p[taken]).toBeCloseTo(whole.get(repair) ?? -1, 12);
      const sum = [...histories.values()].reduce((total, p) => total + (p[taken] as number), 0);
      expect(sum).toBeCloseTo(1, 9);
    }
  });

  test("how it stands now may be given, and the steps before it stay what they are", () => {
    const groups = suspectGroups(engine, ({ repair }) => repair);
    const now = new Map([
      ["R1", 0.75],
      ["unknown", 0.25],
    ]);
    const given = beliefHistory(engine, readings, plainly, groups, now);
    for (const [repair, p] of histories) {
      expect(given.get(repair)?.slice(0, -1)).toEqual(p.slice(0, -1));
      expect(given.get(repair)?.at(-1)).toBe(now.get(repair) ?? 0);
    }
  });

  test("the dead low speeds raise the pack, the working top speed clears the motor", () => {
    expect(of("R1").at(-1)).toBeGreaterThan(0.9);
    expect(of("R1")[3]).toBeGreaterThan(of("R1")[0] as number);
    expect(of("M1")[4]).toBeLessThan((of("M1")[3] as number) / 2);
  });

  test("a noise raises what tells by the ear, apart from the rest of the same motor", () => {
    const rumble: Reading = { test: "listen", heard: true, key: "run", setting: "4", seen: "rumble" };
    const groups = suspectGroups(engine, ({ fault }) =>
      fault.names.every(({ mode }) => isMechanical(mode)) ? "mechanical" : "electrical",
    );
    const apart = beliefHistory(engine, [rumble], plainly, groups);
    const [before = 0, after = 0] = apart.get("mechanical") ?? [];
    expect(after).toBeGreaterThan(2 * before);
  });

  test("asked again it is the same, and a striking-out and a put-back in between change nothing", () => {
    const groups = suspectGroups(engine, ({ repair }) => repair);
    const first = beliefHistory(engine, readings, plainly, groups);
    const without = beliefHistory(engine, readings.slice(0, -1), plainly, groups);
    expect([...beliefHistory(engine, readings, plainly, groups)]).toEqual([...first]);
    for (const [group, p] of without) expect(p).toEqual(first.get(group)?.slice(0, -1));
    const counts = [{ kind: "motor", mode: "worn-brushes", n: 500 }];
    const counted = beliefHistory(engine, readings, { repairs: [], counts }, groups);
    expect(counted.get("M1")?.[0]).toBeGreaterThan(first.get("M1")?.[0] ?? 1);
  });
});
