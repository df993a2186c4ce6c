import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { faultId } from "../fault/faultId";
import { entriesOf } from "../practice/practiceCase";
import { shippedCircuit, shippedNetlist } from "../testing/shippedCircuit";
import { parsePracticeAct, parsePracticeFile, practiceFile } from "./practiceFile";

const circuit = shippedCircuit("siskin-five-speed");
const entries = (["single", "cause", "intermittent", "slip"] as const).flatMap((kind) =>
  entriesOf(shippedNetlist("siskin-five-speed"), "hard", kind),
);
const shared = (fault = entries[0]?.fault.names ?? [], seed = 4711) =>
  practiceFile({ title: "Monday", level: "hard", kind: "single", circuit, fault, seed });

describe("a shared case", () => {
  test("is read as it was written, whatever it hides", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: entries.length - 1 }),
        fc.integer({ min: 0, max: 2 ** 31 - 1 }),
        (at, seed) => {
          const names = entries[at]?.fault.names ?? [];
          const read = parsePracticeFile(JSON.parse(JSON.stringify(shared(names, seed))));
          if (!read.ok) throw new Error(JSON.stringify(read.problems));
          expect(read.value.seed).toBe(seed);
          expect(faultId(read.value.fault)).toBe(faultId(names));
          expect(read.value.circuit).toEqual(circuit);
        },
      ),
      { numRuns: 60 },
    );
  });

  test("does not show the fault at a glance", () => {
    for (const { fault } of entries.slice(0, 60)) {
      const text = JSON.stringify(shared(fault.names));
      for (const { where, mode } of fault.names) expect(text).not.toContain(`${where}:${mode}`);
    }
  });

  test.each([
    ["no object", "case"],
    ["another format", { ...shared(), format: "airway-case" }],
    ["another version", { ...shared(), version: 9 }],
    ["a key too many", { ...shared(), answer: "R1" }],
    ["no title", { ...shared(), title: "" }],
    ["a level that is none", { ...shared(), level: "easy" }],
    ["a seal that is none", { ...shared(), sealed: "4711 R1" }],
    ["a seal of nothing", { ...shared(), sealed: "20" }],
    ["a seed that is none", { ...shared(), sealed: Buffer.from("x M1:seized").toString("hex") }],
    ["a fault elsewhere", { ...shared(), sealed: Buffer.from("1 Q7:seized").toString("hex") }],
    [
      "a circuit that does not hold together",
      { ...shared(), circuit: { ...circuit, parts: circuit.parts.slice(1) } },
    ],
  ])("%s is refused with its place", (_, spoiled) => {
    const read = parsePracticeFile(spoiled);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.problems[0]?.message.length).toBeGreaterThan(5);
  });
});

describe("stored actions", () => {
  test.each([
    { act: "open", place: "under-dash", minutes: 4 },
    { act: "fit", parts: ["R1"], odds: 0.9, opened: ["under-dash"], minutes: 19, priceMinor: 3500 },
    { act: "give-up", minutes: 0 },
    { act: "ask", look: { test: "smell", key: "run", setting: "4" }, minutes: 5 },
    {
      act: "look",
      reading: { test: "listen", key: "run", setting: "4", seen: "quiet" },
      minutes: 0.5,
      rpm: 3012,
    },
    { act: "drive", held: false, minutes: 5, costMinor: 20_000, complaint: [] },
  ])("$act is read as it was written", (act) => expect(parsePracticeAct(JSON.stringify(act))).toEqual(act));

  test.each([
    { act: "dance" },
    { act: "fit", parts: [], odds: 2 },
    { act: "look", reading: { test: "stare" }, minutes: 1 },
  ])("%j is not one", (act) => expect(() => parsePracticeAct(JSON.stringify(act))).toThrow());
});
