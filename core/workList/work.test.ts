// What a job's findings ask for, and what its lines of work say of the parts (common practice, no source).
import { describe, expect, test } from "@jest/globals";
import type { WorkDone } from "../labour/workDone";
import { isTemporary } from "../labour/workDone";
import { shippedEngine } from "../testing/shippedCircuit";
import { look } from "../testing/takenReadings";
import { proposedWork, usualWork } from "./proposedWork";
import { partsMended, type WorkLine, workEntrySchema } from "./workLine";

const { circuit } = shippedEngine("whimbrel-four-speed").netlist;
const line = (part: string, done: WorkDone, round = 1, state: WorkLine["state"] = "done"): WorkLine => ({
  id: `${part}-${round}`,
  part,
  what: part,
  done,
  round,
  state,
});

describe("proposed work", () => {
  test("a melted plug is a new plug with leads, whatever the verdict", () => {
    expect(proposedWork(circuit, ["R1"], [look("X5", "melted")], [])).toEqual([
      { part: "R1", done: "renewed", reason: { kind: "verdict" } },
      { part: "X5", done: "spliced", reason: { kind: "seen", seen: "melted" } },
    ]);
  });

  test("the root cause comes first, as in the verdict", () => {
    expect(proposedWork(circuit, ["M1", "R1"], [], []).map(({ part }) => part)).toEqual(["M1", "R1"]);
  });

  test("water means finding the leak, corrosion and leaves mean cleaning, a blown fuse a new one", () => {
    const proposed = proposedWork(
      circuit,
      [],
      [look("X3", "wet"), look("E1", "corroded"), look("M1", "debris"), look("F7", "blown")],
      [],
    );
    expect(proposed.map(({ part, done }) => [part, done])).toEqual([
      ["X3", "leak-stopped"],
      ["E1", "cleaned"],
      ["M1", "cleaned"],
      ["F7", "renewed"],
    ]);
  });

  test("nothing is proposed twice, and nothing that looks clean", () => {
    const readings = [look("X5", "melted"), look("X3", "clean")];
    expect(proposedWork(circuit, ["R1"], readings, [line("R1", "renewed"), line("X5", "spliced")])).toEqual(
      [],
    );
  });

  test("a wire is repaired, a ground point cleaned", () => {
    expect([usualWork(circuit, circuit.wires[0]?.id ?? ""), usualWork(circuit, "E1")]).toEqual([
      "repaired",
      "cleaned",
    ]);
  });
});

describe("what work says of the parts", () => {
  test("every round counts; what was only oiled, or proved good and put back, is not mended", () => {
    const lines = [
      line("M1", "renewed", 1),
      line("X2", "spliced", 2),
      line("R1", "refitted", 2),
      line("S2", "renewed", 2, "planned"),
    ];
    expect(partsMended(lines)).toEqual(["M1", "X2"]);
    expect(partsMended([line("M1", "oiled")])).toEqual([]);
  });

  test("oil is temporary, whether or not somebody says so", () => {
    expect(isTemporary({ done: "oiled" })).toBe(true);
    expect(isTemporary({ done: "renewed" })).toBe(false);
    expect(isTemporary({ done: "cleaned", temporary: true })).toBe(true);
  });

  test.each([
    [{ what: "", done: "renewed" }, "enter what was worked on"],
    [{ what: "motor", done: "renewed", minutes: -1 }, "cannot be negative"],
    [{ what: "motor", done: "renewed", plannedMinutes: 2000 }, "cannot be more than a day"],
  ])("an entry that cannot be taken says why: %j", (entry, problem) => {
    const parsed = workEntrySchema.safeParse(entry);
    expect(parsed.success ? null : parsed.error.issues[0]?.message).toBe(problem);
  });
});
