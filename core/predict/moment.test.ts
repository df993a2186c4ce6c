import { describe, expect, test } from "@jest/globals";
import { shippedEngine } from "../testing/shippedCircuit";
import { comesAndGoes, type Moment, momentOf, rowsAt, type Timed } from "./moment";

const volts = { test: "volts" };

describe("the moment of a reading", () => {
  test.each<[string, Timed, boolean, Moment]>([
    ["that says it was failing", { ...volts, state: "failing" }, false, "failing"],
    [
      "that says it was working, even hot",
      { ...volts, state: "working", temperature: "hot" },
      true,
      "working",
    ],
    ["of a complaint that comes and goes", { test: "airflow", heard: true }, true, "failing"],
    ["of a complaint that does not", { test: "airflow", heard: true }, false, "usual"],
    ["taken hot", { ...volts, temperature: "hot" }, true, "hot"],
    ["taken ten minutes in", { ...volts, minutesIn: 10 }, true, "hot"],
    ["taken at once", { ...volts, minutesIn: 0.5 }, true, "cold"],
    ["taken after four minutes", { ...volts, minutesIn: 4 }, true, "unsaid"],
    ["that says nothing where it comes and goes", volts, true, "unsaid"],
    ["that says nothing where it does not", volts, false, "usual"],
  ])("%s", (_, reading, varies, moment) => expect(momentOf(reading, varies)).toBe(moment));

  test("a job varies by a pattern or by a reading taken while it worked", () => {
    expect(comesAndGoes([{ test: "airflow", pattern: "fades" }])).toBe(true);
    expect(comesAndGoes([{ ...volts, state: "working" }])).toBe(true);
    expect(comesAndGoes([{ ...volts, state: "failing" }, volts])).toBe(false);
  });
});

describe("a suspect's rows", () => {
  const open = { names: [{ where: "X5:1", mode: "open", value: null }], parts: ["X5"], changes: [] };
  const hot = { ...open, names: [{ where: "A1", mode: "thermal", value: null }], presentShare: 0.7 };

  test("are the fault's own while it fails, and mostly the healthy ones while it works", () => {
    expect(rowsAt(7, hot, "failing")).toEqual([{ row: 7, share: 1 }]);
    expect(rowsAt(7, hot, "usual").map(({ row }) => row)).toEqual([7, 0]);
    expect(rowsAt(7, hot, "usual")[0]?.share).toBe(0.7);
    for (const fault of [hot, { ...open, presentShare: 1 }])
      expect(rowsAt(7, fault, "working")[0]).toEqual({ row: 0, share: 0.96 });
  });

  test("heat brings on what heat brings on, and nothing else", () => {
    expect(rowsAt(7, hot, "cold")[0]?.row).toBe(0);
    expect(rowsAt(7, hot, "hot")[0]).toEqual({ row: 7, share: 0.9 });
    expect(rowsAt(7, { ...open, presentShare: 1 }, "cold")).toEqual([{ row: 7, share: 1 }]);
  });

  test("always sum to one, and share one circuit's tables", () => {
    const engine = shippedEngine("whimbrel-pwm-low");
    const moments: Moment[] = ["usual", "failing", "working", "hot", "cold", "unsaid"];
    for (const moment of moments) {
      const at = engine.at(moment);
      expect(engine.at(moment)).toBe(at);
      expect(at.variants).toHaveLength(engine.variants.length);
      for (const { rows } of at.variants)
        expect(rows.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
      const setup = { key: "run", setting: "3" } as const;
      expect(at.table(setup)).toBe(engine.table(setup));
    }
    expect(engine.at("usual")).toBe(engine);
  });
});
