// What the customer is asked before anything comes off (common practice, no source).
import { describe, expect, test } from "@jest/globals";
import type { Pattern } from "../../predict/moment";
import type { Reading } from "../../predict/reading";
import { heard, shippedEngine } from "../../testing/shippedCircuit";
import { type Diagnosis, diagnose } from "../diagnose";

const engine = shippedEngine("whimbrel-pwm-low");
const [off, ...running] = engine.netlist.circuit.settings;
/** Dead on every speed, in a way the customer tells. */
const dead = (pattern?: Pattern): Reading[] => [
  ...heard({ [off as string]: "none" }),
  ...heard(Object.fromEntries(running.map((setting) => [setting, "none"])), pattern),
];
const diagnosed = (readings: readonly Reading[]): Diagnosis => {
  const result = diagnose(engine, readings);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
const first = (readings: readonly Reading[]) => diagnosed(readings).next[0]?.test;

describe("a control that comes and goes", () => {
  test("begins with the question when it does", () => {
    expect(first(dead("comes-and-goes"))?.test).toBe("history");
    expect(diagnosed(dead("comes-and-goes")).verdict.state).toBe("open");
  });

  test.each(["only-hot", "only-bumps", undefined] as const)(
    "is not asked where the customer told it: %s",
    (pattern) => expect(first(dead(pattern))?.test).not.toBe("history"),
  );

  test("is asked one question, and then tested", () => {
    const readings = dead("comes-and-goes");
    const question = first(readings);
    if (question?.test !== "history") throw new Error("no question");
    const asked: Reading[] = [...readings, { ...question, seen: "yes" }];
    expect(first(asked)?.test).not.toBe("history");
    // An answer is no measurement.
    expect(diagnosed(asked).verdict.state).toBe("open");
  });

  test("is not asked again what the complaint told", () => {
    const question = first([
      ...dead("comes-and-goes"),
      { test: "history", of: "bumps", seen: "no", heard: true },
    ]);
    expect(question).not.toEqual(expect.objectContaining({ of: "bumps" }));
  });
});
