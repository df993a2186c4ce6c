// What readings say of time (common practice, no source: a reading taken while it fails is worth ten taken while it
// works).
import { describe, expect, test } from "@jest/globals";
import type { Pattern } from "../predict/moment";
import { type Reading, testOf } from "../predict/reading";
import { heard, shippedEngine } from "../testing/shippedCircuit";
import { volts } from "../testing/takenReadings";
import { believe } from "./belief/belief";
import { scoreReading } from "./belief/readingScore";
import { diagnose } from "./diagnose";

const engine = shippedEngine("whimbrel-four-speed");
const dead = (setting: string, pattern?: Pattern): Reading => {
  const [reading] = heard({ [setting]: "none" }, pattern);
  if (!reading) throw new Error("nothing was told");
  return reading;
};
const speeds = ["1", "2", "3", "4"];
const complaint = speeds.map((setting) => dead(setting, "comes-and-goes"));

function diagnosed(readings: readonly Reading[]) {
  const result = diagnose(engine, readings);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

describe("where the symptom comes and goes", () => {
  test("a reading taken while it worked says next to nothing, and its test is offered again", () => {
    // The customer is asked first; what counts here is the first test.
    const next = diagnosed(complaint).next.find(({ test: own }) => own.test !== "history");
    if (!next) throw new Error("no test left");
    const first = diagnosed(complaint).parts;
    const good = { ...volts("X3:1", "4", 12.4), state: "working" } as const;
    const after = diagnosed([...complaint, good]).parts;
    for (const { part, p } of first.slice(0, 5))
      expect(Math.abs((after.find((own) => own.part === part)?.p ?? 0) - p)).toBeLessThan(0.03);
    const took = { ...volts("X3:1", "4", 0), state: "failing" } as const;
    const motor = (parts: typeof first) => parts.find(({ part }) => part === "M1")?.p ?? 0;
    expect(motor(diagnosed([...complaint, took]).parts)).toBeLessThan(0.25 * motor(first));
    const offeredAgain = diagnosed([
      ...complaint,
      { ...next.test, ...resultOf(next), state: "working" } as Reading,
    ]);
    expect(offeredAgain.next.map(({ test: own }) => own)).toContainEqual(next.test);
  });

  test("a pattern counts once, however many speeds it is told of", () => {
    const told = (count: number) =>
      speeds.map((setting, i) => dead(setting, i < count ? "only-bumps" : undefined));
    const one = believe(engine, told(1));
    const four = believe(engine, told(4));
    expect([...four.variants]).toEqual([...one.variants]);
    const plain = believe(engine, told(0));
    const loose = (of: typeof one): number =>
      engine.variants.reduce(
        (sum, { fault }, i) =>
          sum + (fault.names.some(({ mode }) => mode === "loose") ? (of.variants[i] as number) : 0),
        0,
      );
    expect(loose(one)).toBeGreaterThan(3 * loose(plain));
  });

  test("a pattern does not count beside the same told when asked", () => {
    const asked: Reading = { test: "history", heard: true, of: "bumps", seen: "yes" };
    const twice = believe(engine, [...speeds.map((setting) => dead(setting, "only-bumps")), asked]);
    const reading = twice.scores[0]?.odds ?? new Float64Array();
    const plain = scoreReading(engine.at("failing"), dead("1")).odds;
    expect([...reading]).toEqual([...plain]);
  });
});

/** The likeliest result of an offered test. */
function resultOf(next: ReturnType<typeof diagnosed>["next"][number]): object {
  const [likeliest] = [...next.outcomes].sort((a, b) => b.p - a.p);
  if (!likeliest) return {};
  return next.test.test === "volts" ? { volts: likeliest.value } : { seen: likeliest.seen };
}

test("how a reading is known and when it was taken are no part of its test", () => {
  const reading = {
    ...volts("X3:1", "4", 12.4),
    state: "failing",
    temperature: "hot",
    minutesIn: 9,
  } as const;
  expect(testOf(reading)).toEqual(testOf(volts("X3:1", "4", 12.4)));
});
