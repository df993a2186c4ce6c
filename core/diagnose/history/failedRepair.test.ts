import { describe, expect, test } from "@jest/globals";
import { parseCase } from "../../formats/case";
import type { Reading } from "../../predict/reading";
import { problemText } from "../../problem/problem";
import { heard, repairIn, shippedCircuit, shippedEngine } from "../../testing/shippedCircuit";
import { believe } from "../belief/belief";
import { diagnose } from "../diagnose";
import { beliefHistory, groupOf, suspectGroups } from "./beliefHistory";
import { believeThrough, newPartBad, readingsBefore, secondFault } from "./failedRepair";

const engine = shippedEngine("whimbrel-four-speed");
const complaint: Reading[] = heard({ "1": "none", "2": "none", "3": "none", "4": "normal" });
const second = secondFault(engine);
const pack = { after: complaint.length, parts: ["R1"] };
const stillDead: Reading[] = [
  { test: "airflow", key: "run", setting: "2", seen: "none" },
  { test: "airflow", key: "run", setting: "4", seen: "normal" },
];

/** Belief in all suspects whose faults are all of these families. */
const of = (variants: Float64Array, family: string): number =>
  engine.variants.reduce((sum, own, i) => sum + (own.family === family ? (variants[i] as number) : 0), 0);
const inParts = (variants: Float64Array, parts: readonly string[]): number =>
  engine.variants.reduce(
    (sum, { fault }, i) =>
      sum + (fault.parts.every((part) => parts.includes(part)) ? (variants[i] as number) : 0),
    0,
  );

describe("a repair that did not fix the fault", () => {
  const before = believe(engine, complaint).variants;
  const after = believeThrough(engine, complaint, [pack]);

  test("removes the new part, and the rest keep their relative odds", () => {
    expect(inParts(before, ["R1"])).toBeGreaterThan(0.8);
    // By hand: (1 − e − s) of its own belief, and s of the whole by how often it fails; all scaled alike.
    const known = [...before].reduce((sum, p) => sum + p, 0);
    const kept = engine.variants.flatMap(({ fault, prior }, i) =>
      fault.parts.length === 1 && !["R1", "X5", "M1"].includes(fault.parts[0] ?? "")
        ? [{ i, own: (1 - newPartBad - second) * (before[i] ?? 0), prior }]
        : [],
    );
    const elsewhere = engine.variants.reduce(
      (sum, { fault, prior }) => (fault.parts.includes("R1") ? sum : sum + prior),
      0,
    );
    const ratios = kept.map(
      ({ i, own, prior }) => (after.variants[i] as number) / (own + (second * known * prior) / elsewhere),
    );
    expect(ratios.length).toBeGreaterThan(20);
    for (const ratio of ratios) expect(ratio / (ratios[0] as number)).toBeCloseTo(1, 6);
    expect([...after.variants].reduce((sum, p) => sum + p, after.unknown)).toBeCloseTo(1, 9);
  });

  test("leaves the cause of a pair: the tight motor that burnt the link is still tight", () => {
    const pair = engine.variants.find(
      ({ fault }) => fault.names.length === 2 && fault.parts.includes("R1") && fault.parts.includes("M1"),
    );
    const tight = pair?.family.split("+").find((own) => own.startsWith("M1")) ?? "";
    const pairs = engine.variants
      .filter(({ fault, family }) => fault.parts.includes("R1") && family.split("+").includes(tight))
      .reduce((sum, own) => sum + (before[engine.variants.indexOf(own)] as number), 0);
    expect(pairs).toBeGreaterThan(0);
    const plain = engine.variants.findIndex(
      ({ fault }) => fault.parts.length === 1 && fault.parts[0] === "W15",
    );
    // By hand: the pair's belief goes to the motor alone, in addition to its share of second faults; scaled as a wire
    // is.
    const known = [...before].reduce((sum, p) => sum + p, 0);
    const elsewhere = engine.variants.reduce(
      (sum, { fault, prior }) => (fault.parts.includes("R1") ? sum : sum + prior),
      0,
    );
    const priorOf = (family: string) =>
      engine.variants.reduce((sum, own) => (own.family === family ? sum + own.prior : sum), 0);
    const expected = (own: number, prior: number) =>
      (1 - newPartBad - second) * own + (second * known * prior) / elsewhere;
    const wire = engine.variants[plain];
    const scale = (after.variants[plain] as number) / expected(before[plain] as number, wire?.prior ?? 0);
    expect(of(after.variants, tight)).toBeCloseTo(
      scale * expected(of(before, tight) + pairs, priorOf(tight)),
      9,
    );
    expect(of(after.variants, tight)).toBeGreaterThan(5 * of(before, tight));
  });

  test("gives the new part and its plug a small probability of being faulty, and the rest one of having been hidden", () => {
    const certain = { after: 1, parts: ["R1"] };
    const measured: Reading[] = [
      { test: "ohms", red: "R1.T1", black: "R1.N", unplugged: ["X5"], ohms: null },
      ...stillDead,
    ];
    const sure = believeThrough(engine, measured, [certain]);
    const [fresh, elsewhere] = [
      inParts(sure.variants, ["R1", "X5"]),
      1 - inParts(sure.variants, ["R1", "X5"]),
    ];
    expect(fresh).toBeGreaterThan(0.3);
    expect(elsewhere).toBeGreaterThan(0.01);
  });

  test("the same readings again after it point elsewhere, and readings keep their own numbers", () => {
    const readings = [...complaint, ...stillDead];
    const blind = diagnose(engine, readings);
    const found = diagnose(engine, readings, { repairs: [pack], asIf: 1 });
    if (!found.ok || !blind.ok) throw new Error("refused");
    const p = (parts: typeof found.value.parts) => parts.find(({ part }) => part === "R1")?.p ?? 0;
    expect(p(blind.value.parts)).toBeGreaterThan(0.8);
    expect(p(found.value.parts)).toBeLessThan(0.3);
    expect(found.value.verdict.replace).not.toEqual(["R1"]);
    expect(found.value.asIf?.[0]?.map(({ reading }) => reading)).toEqual([4, 5]);
    expect(found.value.suspects.reduce((sum, own) => sum + own.p, 0)).toBeCloseTo(1, 9);
  });

  test("one before any reading uses the priors; two are applied one after the other", () => {
    const none = believeThrough(engine, [], [{ after: 0, parts: ["R1"] }]);
    expect(inParts(none.variants, ["R1"])).toBeLessThan(2 * newPartBad);
    const both = believeThrough(engine, [...complaint, ...stillDead], [{ after: 6, parts: ["SW1"] }, pack]);
    expect(inParts(both.variants, ["SW1"])).toBeLessThan(0.02);
    expect(both.readings).toEqual([]);
    expect(readingsBefore([{ after: 6, parts: ["SW1"] }, pack], 6)).toBe(6);
    expect(readingsBefore([], 6)).toBe(0);
  });

  test("the belief history shows it: the step after the repair is the last one before it, redistributed", () => {
    const moved = beliefHistory(engine, [...complaint, ...stillDead], { repairs: [pack] });
    const group = groupOf(suspectGroups(engine), repairIn(engine, "R1"), ["open"]);
    const r1 = (group && moved.get(group)) ?? [];
    expect(r1[4]).toBeLessThan((r1[3] as number) / 2);
    expect(r1).toHaveLength(7);
  });
});

describe("in a case file", () => {
  const file = (repairs: unknown) =>
    parseCase(
      { format: "airway-case", version: 1, circuitId: "whimbrel-four-speed", readings: complaint, repairs },
      shippedCircuit,
    );

  test("repairs are read, and there are none unless named", () => {
    const read = file([pack]);
    expect(read.ok && read.value.repairs).toEqual([pack]);
    const none = file(undefined);
    expect(none.ok && none.value.repairs).toEqual([]);
  });

  test.each([
    [[{ after: 9, parts: ["R1"] }], "repairs.0.after: there are 4 readings"],
    [[pack, { after: 4, parts: ["R1", "Q9"] }], 'repairs.1.parts.1: the circuit has no "Q9"'],
    [[{ after: 4, parts: [] }], "repairs.0.parts: must be at least 1 entries"],
  ])("%j is refused with its place", (repairs, message) => {
    const read = file(repairs);
    expect(read.ok ? "" : read.problems.map(problemText).join()).toContain(message);
  });
});

describe("a look at the part that came out", () => {
  const dead = heard({ "1": "none", "2": "none", "3": "none", "4": "none" });
  const motor = { after: dead.length, parts: ["M1"] };
  const outside = ({ variants }: { variants: Float64Array }): number => 1 - inParts(variants, ["M1", "X3"]);

  test("a good old motor leaves its fault where it was, a bad one makes a second fault the reason", () => {
    const unknown = believeThrough(engine, dead, [motor]);
    const good = believeThrough(engine, dead, [{ ...motor, found: { M1: "good" } }]);
    const bad = believeThrough(engine, dead, [{ ...motor, found: { M1: "bad" } }]);
    // The motor was likely before; the feed wire keeps its odds to any other wire, whatever the motor was.
    const ratio = ({ variants }: { variants: Float64Array }): number =>
      of(variants, "W2:open") / of(variants, "F7:blown");
    expect(ratio(good)).toBeCloseTo(ratio(unknown), 1);
    expect(outside(good)).toBeGreaterThan(outside(bad));
    // By Bayes: the odds of "first repair wrong" to "a second fault" move by the odds of the judgement, 19 to 1 either way.
    expect(of(good.variants, "R1.link:open")).not.toBeCloseTo(of(bad.variants, "R1.link:open"), 3);
  });

  test("nothing looked at is as before", () => {
    const plain = believeThrough(engine, dead, [motor]);
    expect([...believeThrough(engine, dead, [{ ...motor, found: {} }]).variants]).toEqual([
      ...plain.variants,
    ]);
  });
});
