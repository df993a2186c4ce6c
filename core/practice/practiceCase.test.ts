import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "../chance/chance";
import { believe, rankedRepairs, repairBelief } from "../diagnose/belief/belief";
import { swapBySymptom } from "../diagnose/tests/flowChart";
import type { Test } from "../predict/reading";
import { shippedEngine } from "../testing/shippedCircuit";
import { outcomeOf } from "./outcome";
import {
  type CaseMade,
  caseFaultId,
  complaintOf,
  entriesOf,
  faultOf,
  judgeCase,
  lastingChance,
  type PracticeKind,
  type PracticeLevel,
  playedOn,
  practiceCircuit,
  practiceKinds,
  practiceLevels,
  tryCase,
  worldOf,
} from "./practiceCase";
import { SimulatedVehicle } from "./simulatedVehicle";

const on = practiceCircuit(shippedEngine("whimbrel-four-speed"));
const { exact, compiled } = on;

describe("what a level may hide", () => {
  const modes = (level: PracticeLevel, kind: PracticeKind): Set<string> =>
    new Set(entriesOf(exact, level, kind).flatMap(({ fault }) => fault.names.map(({ mode }) => mode)));

  test("first steps have no partial faults, and nothing intermittent", () => {
    const own = modes("first", "single");
    for (const mode of ["open", "blown", "seized", "stuck-open"]) expect(own).toContain(mode);
    for (const mode of ["high", "loose", "tight", "worn-brushes", "dead-spot"])
      expect(own).not.toContain(mode);
  });

  test("a cause comes with its victim, an intermittent fault alone", () => {
    for (const { fault } of entriesOf(exact, "hard", "cause")) expect(fault.names).toHaveLength(2);
    const own = modes("hard", "intermittent");
    for (const mode of ["dead-spot", "loose", "fades-hot", "open"]) expect(own).toContain(mode);
    for (const mode of ["seized", "tight", "worn-brushes"]) expect(own).not.toContain(mode);
    expect(worldOf({ level: "hard", kind: "intermittent" }).comesAndGoes).toBe(1);
  });

  test("an earlier repair leaves pins, wires, grounds and fuses behind, never a worn motor", () => {
    const parts = new Set(entriesOf(exact, "usual", "slip").flatMap(({ fault }) => fault.parts));
    expect(parts.size).toBeGreaterThan(10);
    for (const kind of ["motor", "resistor", "relay", "selector", "battery"])
      for (const part of exact.circuit.parts.filter((own) => own.kind === kind))
        expect(parts).not.toContain(part.id);
    const own = { level: "usual", kind: "slip" } as const;
    expect(worldOf(own).recentWork).toBe(true);
    expect(worldOf({ ...own, kind: "single" }).recentWork).toBeUndefined();
  });

  test("the filter, which the bay cannot replace, is left to trainers", () => {
    for (const level of practiceLevels)
      for (const kind of practiceKinds)
        for (const { fault } of entriesOf(exact, level, kind)) expect(fault.names[0]?.where).not.toBe("CAR");
  });
});

describe("a generated case", () => {
  const made = practiceLevels.flatMap((level) => {
    const own: CaseMade[] = [];
    for (let seed = 1; own.length < 4 && seed < 80; seed++) {
      const drawn = tryCase(on, level, null, seed);
      if (typeof drawn !== "string") own.push(drawn);
    }
    return own;
  });

  test("exists on every level, and is the same for the same seed", () => {
    expect(made).toHaveLength(12);
    for (const { case: own } of made.slice(0, 3))
      expect(tryCase(on, own.level, null, own.seed)).toMatchObject({ case: own });
  });

  test("has a complaint that does not give it away, and can be solved with these tools", () => {
    for (const { case: own, looks } of made) {
      const fault = faultOf(exact, own);
      if (!fault.ok) throw new Error(caseFaultId(own));
      expect(own.complaint.length).toBeGreaterThan(3);
      expect(own.complaint.every(({ heard }) => heard)).toBe(true);
      const odds = rankedRepairs(repairBelief(compiled, believe(compiled, own.complaint)));
      expect(Math.max(...odds.map(([, p]) => p))).toBeLessThanOrEqual(0.95);
      expect(looks).toBeGreaterThanOrEqual(1);
      expect(outcomeOf(playedOn(on, own, fault.value, 1).diagnosis, fault.value)).not.toBe("wrong");
      if (own.level === "first") continue;
      expect(swapBySymptom(compiled, own.complaint)).not.toBe([...fault.value.parts].sort().join("+"));
    }
  });

  test("does not exist if nobody complains or the complaint says it all", () => {
    const [first] = made;
    if (!first) throw new Error("nothing made");
    const fault = faultOf(exact, first.case);
    if (!fault.ok) throw new Error("no fault");
    expect(judgeCase(on, { ...first.case, complaint: [] }, fault.value)).toBe("no complaint");
    // A dead motor by its symptom: replacing the motor cures it.
    const open = {
      level: "usual",
      kind: "single",
      seed: 5,
      fault: [{ where: "M1", mode: "open", value: null }],
    } as const;
    const placed = faultOf(exact, open);
    if (!placed.ok) throw new Error("no fault");
    const complaint = complaintOf(exact, open, placed.value, 0);
    expect(judgeCase(on, { ...open, complaint }, placed.value)).toBe("trivial");
  });
});

describe("a vehicle tested on several visits", () => {
  const fault = faultOf(exact, { fault: [{ where: "X5:4", mode: "high", value: 3 }] });
  if (!fault.ok) throw new Error("no fault");
  const visit = (noise: number, seed = 9) =>
    new SimulatedVehicle(exact, fault.value, worldOf({ level: "usual", kind: "single" }), chanceFrom(seed), {
      chance: chanceFrom(noise),
      lasting: lastingChance(seed),
      awoken: false,
    });
  const volts: Test = { test: "volts", red: "X3:1", black: "G1.-", key: "run", setting: "4" };

  test("shows the eye the same as before; a meter's last digits differ", () => {
    const looked = [1, 2, 3, 4].map((noise) => visit(noise).take({ test: "look", at: "X5" }));
    for (const own of looked) expect(own).toEqual(looked[0]);
    const shown = [1, 2, 3, 4].map((noise) => visit(noise).take(volts));
    expect(new Set(shown.map((own) => JSON.stringify(own))).size).toBeGreaterThan(1);
    expect(visit(2).take(volts)).toEqual(shown[1]);
  });

  test("is a different one with another seed", () => {
    const of = (seed: number): number[] =>
      [1, 2, 3].flatMap((noise) => {
        const reading = visit(noise, seed).take(volts);
        return reading.test === "volts" ? [reading.volts] : [];
      });
    const mean = (values: number[]): number => values.reduce((sum, own) => sum + own, 0) / values.length;
    expect(Math.abs(mean(of(9)) - mean(of(10)))).toBeGreaterThan(0.01);
  });

  test("turns as fast as its air says, and not with its plug off", () => {
    expect(visit(1).rpm({ key: "run", setting: "4" })).toBeGreaterThan(1500);
    expect(visit(1).rpm({ key: "run", setting: "4", unplugged: ["X3"] })).toBe(0);
    expect(visit(1).rpm({ key: "off", setting: "4" })).toBe(0);
  });

  test("lasting random values are separate by name and by seed", () => {
    const of = (seed: number, key: string): number => lastingChance(seed)(key).uniform();
    expect(of(1, "look R1")).toBe(of(1, "look R1"));
    expect(new Set([of(1, "look R1"), of(1, "look R2"), of(2, "look R1"), of(2, "smell")]).size).toBe(4);
  });
});
