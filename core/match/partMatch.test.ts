// The judgements of differences are the trade's: common practice, no source. Ohms, current and airflow come from the
// solver, which other tests compare with ngspice; here they are compared with Ohm's law by hand.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "@jest/globals";
import { problemText } from "../problem/problem";
import { shippedCircuit } from "../testing/shippedCircuit";
import { mostAmps, partInCircuit } from "./newPart";
import { type PartDescription, parsePart } from "./partDescription";
import { matchParts } from "./partMatch";
import { crimpFor, leadMap } from "./spliceLeads";
import { supersededBy } from "./supersession";

const catalogue = (
  JSON.parse(readFileSync(join(process.cwd(), "demo", "parts.json"), "utf8")) as unknown[]
).map((input) => {
  const part = parsePart(input);
  if (!part.ok) throw new Error(part.problems.map(problemText).join());
  return part.value;
});
const found = (number: string): PartDescription => {
  const part = catalogue.find((one) => one.number === number);
  if (!part) throw new Error(`no part ${number}`);
  return part;
};
const van = shippedCircuit("whimbrel-four-speed");
const motor = found("HW 4402-03");
const pack = found("HW 4410-17");
const against = (part: string, old: PartDescription, fresh: PartDescription, overrides: string[] = []) =>
  matchParts(van, part, old, fresh, catalogue, new Set(overrides));
const judged = (part: string, old: PartDescription, fresh: PartDescription) =>
  Object.fromEntries(
    against(part, old, fresh).differences.map(({ feature, judgement }) => [feature, judgement]),
  );

test("a part compared with itself is the same, for every part of the shop", () => {
  for (const part of catalogue) {
    const id = part.kind === "motor" ? "M1" : "R1";
    if (part.kind !== "motor" || part.fits?.some(({ circuit }) => circuit === van.id))
      if (part.fits?.some(({ circuit }) => circuit === van.id) && part.number !== "HW 4410-18")
        expect(against(id, part, part)).toMatchObject({ verdict: "same", number: "same", workMinutes: 0 });
  }
});

describe("a motor sold as fitting", () => {
  test("without its wheel, another notch, a drain nose: adaptable, each with its work and minutes", () => {
    const other = against("M1", motor, found("QR 700 118"));
    expect(judged("M1", motor, found("QR 700 118"))).toEqual({
      holes: "adaptable",
      "drain nose": "adaptable",
      notch: "adaptable",
      gasket: "adaptable",
      wheel: "adaptable",
      draw: "harmless",
    });
    expect(other.verdict).toBe("adaptable");
    expect(other.workMinutes).toBe(6 + 5 + 4 + 2 + 4);
    expect(other.number).toBe("unrelated");
  });

  test("of the other hand: turns the wrong way, fits only turned over, and overloads the fuse; its vent tube is carried over", () => {
    const { differences, verdict } = against("M1", motor, found("QR 700 119"));
    const findings = Object.fromEntries(differences.map((own) => [own.feature, own.finding]));
    expect(findings.direction).toMatchObject({ code: "turns-backwards" });
    expect(findings["vent tube"]).toMatchObject({ code: "vent-missing" });
    expect(findings.draw).toMatchObject({ code: "fuse-overloaded", fuse: "F7", ratedAmps: 30 });
    expect(verdict).toBe("wrong");
  });

  test("a difference that a person accepts is not charged", () => {
    const other = found("QR 700 118");
    expect(against("M1", motor, other, ["holes", "notch"]).workMinutes).toBe(5 + 2 + 4);
  });

  test("a difference a person overrides no longer counts, but stays visible", () => {
    const reversed = { ...motor, number: "HW 4402-04", turns: "anticlockwise" as const };
    expect(against("M1", motor, reversed).verdict).toBe("wrong");
    const overridden = against("M1", motor, reversed, ["direction"]);
    expect(overridden.verdict).toBe("same");
    expect(overridden.differences).toMatchObject([{ feature: "direction", overridden: true }]);
  });

  test.each([
    [{ shaft: "round" as const }, "shaft"],
    [{ boreMm: 7.8 }, "bore"],
  ])("a wheel that does not fit the new shaft cannot be reused: %j", (change, feature) => {
    const wheel = {
      ...(motor.wheel ?? found("QR 700 118").wheel),
      included: false,
      ...change,
    } as PartDescription["wheel"];
    expect(judged("M1", motor, { ...motor, wheel })).toEqual({ [feature]: "wrong" });
  });

  test("a feature only one of them states is not judged, and is listed for measuring", () => {
    const less = { ...motor, holes: undefined, gasket: undefined };
    const match = against("M1", motor, less);
    expect(match.verdict).toBe("same");
    expect(match.untold).toEqual(["holes", "gasket"]);
  });
});

describe("compared as the trade does", () => {
  const alone = {
    format: "airway-part",
    version: 1,
    number: "ZX 100",
    title: "blower motor",
    kind: "motor",
  } as const;
  type Features = Partial<PartDescription>;
  const compared = (old: Features, fresh: Features) => {
    const { differences, verdict } = against("M1", { ...alone, ...old }, { ...alone, ...fresh });
    return {
      verdict,
      found: differences.map(({ finding, adaptation }) => [finding.code, adaptation?.work ?? null]),
    };
  };
  const wheel = { included: true, boreMm: 8, outerMm: 150, heightMm: 72 } as const;

  test.each<[string, Features, Features, string, [string, string | null][]]>([
    [
      "a missing vent tube is carried over",
      { ventTube: true },
      { ventTube: false },
      "adaptable",
      [["vent-missing", "carry-tube"]],
    ],
    ["so is a missing clip", { clip: true }, { clip: false }, "adaptable", [["clip-missing", "carry-clip"]]],
    ["so is a missing lead", { lead: true }, { lead: false }, "adaptable", [["lead-missing", "carry-lead"]]],
    [
      "a lead that is not needed stays in the box",
      { lead: false },
      { lead: true },
      "harmless",
      [["lead-not-needed", null]],
    ],
    [
      "a plug elsewhere on a longer tail is harmless",
      { plug: { pins: 2, tab: "top", seat: "top", tailMm: 60 } },
      { plug: { pins: 2, tab: "top", seat: "tail", tailMm: 140 } },
      "harmless",
      [
        ["plug-elsewhere", null],
        ["tail-longer", null],
      ],
    ],
    [
      "a tail that is far too short is lengthened wire by wire",
      { plug: { pins: 2, tailMm: 140 } },
      { plug: { pins: 2, tailMm: 60 } },
      "adaptable",
      [["tail-shorter", "lengthen-leads"]],
    ],
    [
      "another plug with an adaptor in the box fits",
      { plug: { pins: 2 } },
      { plug: { pins: 3 }, lead: true },
      "adaptable",
      [["pins-by-lead", "fit-lead"]],
    ],
    [
      "a moulded motor is replaced by the ring kit with its own screws",
      { mount: "moulded", screws: 0, holes: [] },
      { mount: "ring", screws: 6, holes: [[0, 0]] },
      "adaptable",
      [["ring-kit", "fit-ring"]],
    ],
    [
      "a twist lock does not hold what has screws",
      { mount: "twist-lock" },
      { mount: "screws" },
      "wrong",
      [["other-mount", null]],
    ],
    [
      "old cut out and new not: file the corner",
      { notch: "left" },
      { notch: "none" },
      "adaptable",
      [["cut-out-missing", "file-corner"]],
    ],
    [
      "new cut out and old not: in nobody's way",
      { notch: "none" },
      { notch: "left" },
      "harmless",
      [["cut-out-added", null]],
    ],
    [
      "a key without its slot is cut off",
      { key: "none" },
      { key: "top" },
      "adaptable",
      [["key-in-the-way", "cut-key"]],
    ],
    ["a key that is gone is harmless", { key: "top" }, { key: "none" }, "harmless", [["key-gone", null]]],
  ])("%s", (_, old, fresh, verdict, findings) => {
    expect(compared(old, fresh)).toEqual({ verdict, found: findings });
  });

  test.each([
    [{ shaft: "round", hold: "pressed" }, "press-wheel-over", 10],
    [{ shaft: "flat", hold: "clip" }, "carry-wheel-over", 4],
    [{ shaft: "flat" }, "slide-wheel-over", 3],
  ] as const)("a wheel held like %j is carried over in its own way", (how, work, minutes) => {
    const match = against(
      "M1",
      { ...alone, wheel: { ...wheel, ...how } },
      { ...alone, wheel: { included: false, boreMm: 8, ...how } },
    );
    expect(match.differences[0]?.adaptation).toEqual({ work, minutes, count: 1 });
  });

  test("a shaft made for a nut does not hold a wheel from a clip; a bore nobody measured is asked for", () => {
    const clipped = { ...wheel, shaft: "flat", hold: "clip" } as const;
    expect(
      compared({ wheel: clipped }, { wheel: { included: false, shaft: "flat", hold: "nut" } }).found,
    ).toEqual([["other-hold", null]]);
    const match = against("M1", { ...alone, wheel: clipped }, { ...alone, wheel: { included: false } });
    expect(match.verdict).toBe("adaptable");
    expect(match.untold).toContain("wheelFit");
  });

  test("each lead of a splice counts its minutes", () => {
    const match = against("R1", pack, found("HW 4410-18"));
    const splice = match.differences.find(({ feature }) => feature === "tab")?.adaptation;
    expect(splice).toEqual({ work: "splice-leads", minutes: 20, count: 4 });
  });
});

describe("a pack in the circuit", () => {
  test("twice the ohms in the low speeds blow noticeably less: computed, not looked up", () => {
    const { differences, inCircuit } = against("R1", pack, found("QR 771 420"));
    const ohms = differences.find(({ feature }) => feature === "ohms");
    expect(ohms?.judgement).toBe("wrong");
    expect(ohms?.finding).toMatchObject({ code: "speed-changes", setting: expect.stringMatching(/[12]/) });
    const speeds = Object.fromEntries(
      (inCircuit?.speeds ?? []).map((speed) => [speed.setting, speed.airflow]),
    );
    expect(speeds["4"]).toBeCloseTo(1, 6);
    expect(speeds["3"]).toBeCloseTo(1, 6);
    expect(speeds["1"]).toBeLessThan(0.75);
  });

  test("its coils' watts are I²R of the current at that speed", () => {
    const inCircuit = partInCircuit(van, "R1", pack);
    const first = inCircuit?.speeds.find(({ setting }) => setting === "1");
    const coil = inCircuit?.coils.find(({ id }) => id === "R1.e1");
    // e1 carries current on speed 1 alone.
    expect(coil?.watts).toBeCloseTo(1.2 * (first?.amps ?? 0) ** 2, 6);
    expect(coil?.watts).toBeCloseTo(coil?.wasWatts ?? 0, 9);
  });

  test("other coils between other terminals make another pack", () => {
    expect(judged("R1", pack, { ...found("FS 2207.1"), plug: pack.plug, holes: pack.holes })).toMatchObject({
      ohms: "wrong",
    });
  });

  test("the improved one follows by number, comes with leads, and needs filing and a new corner", () => {
    const match = against("R1", pack, found("HW 4410-18"));
    expect(match).toMatchObject({ number: "supersedes", verdict: "adaptable" });
    expect(match.differences.map(({ feature }) => feature)).toEqual(
      expect.arrayContaining(["tab", "notch", "gasket", "ohms"]),
    );
  });

  test("for automatic climate, and with other pins, it is the wrong part", () => {
    expect(judged("R1", pack, { ...pack, climate: "automatic" })).toEqual({ climate: "wrong" });
    expect(judged("R1", pack, { ...pack, plug: { pins: 5, tab: "top" } })).toEqual({ pins: "wrong" });
    expect(judged("R1", pack, { ...pack, kind: "module" })).toMatchObject({ kind: "wrong" });
  });
});

describe("leads to be spliced in", () => {
  const amps = mostAmps(van);

  test("colour to colour, each to its own terminal, with the joint for both sections", () => {
    const map = leadMap(van, "X5", found("HW 4410-18").leads ?? [], amps);
    expect(map.refusals).toEqual([]);
    expect(map.joints.map(({ pin, wire, by }) => [pin, wire.id, by])).toEqual([
      ["1", "W13", "colour"],
      ["2", "W14", "colour"],
      ["3", "W15", "colour"],
      ["4", "W11", "colour"],
    ]);
    expect(map.joints[0]?.crimp).toBe("red");
    expect(map.joints[3]?.crimp).toBe("bare");
  });

  test("a colour that would connect the wrong circuit is refused", () => {
    const { refusals } = leadMap(van, "X5", found("QR 771 421").leads ?? [], amps);
    expect(refusals).toContainEqual({
      code: "wrong-circuit",
      colour: "BU",
      pin: "1",
      terminal: "R1.T1",
      oldPin: "3",
      oldTerminal: "R1.T3",
    });
  });

  test("a lead of another colour is joined by its pin and marked; one too thin, a missing one and a plug that does not exist are named", () => {
    const one = leadMap(van, "X5", [{ pin: "1", colour: "WH", mm2: 1 }], () => 25);
    expect(one.joints[0]?.warnings).toContain("joined-by-pin");
    expect(one.refusals).toContainEqual(expect.objectContaining({ code: "no-lead", plug: "X5", pin: "2" }));
    expect(one.refusals).toContainEqual(
      expect.objectContaining({ code: "too-thin", mm2: 1, standsAmps: 19, amps: 25 }),
    );
    expect(leadMap(van, "X99", [], amps).refusals).toEqual([{ code: "no-such-plug", plug: "X99" }]);
    expect(leadMap(van, "X5", [{ pin: "9", colour: "WH", mm2: 1 }], amps).refusals).toContainEqual({
      code: "no-pin",
      pin: "9",
      colour: "WH",
    });
  });

  test.each([
    [1, 1.5, "red"],
    [1.5, 2.5, "blue"],
    [4, 6, "yellow"],
    [1, 4, "bare"],
  ])("%d on %d mm²: %s", (a, b, word) => expect(crimpFor(a, b)).toBe(word));
});

describe("superseded numbers", () => {
  const line = (number: string, more: object = {}) => ({ number, ...more });

  test("are followed to the end, from either side, whatever their dashes", () => {
    expect(supersededBy(catalogue, "hw4410-17")).toEqual({
      kind: "current",
      number: "HW 4410-18",
      chain: ["HW 4410-17", "HW 4410-18"],
    });
    expect(
      supersededBy(
        [line("A 1"), line("B 1", { replaces: ["A-1"] }), line("C 1", { replaces: ["B1"] })],
        "A 1",
      ),
    ).toMatchObject({
      kind: "current",
      number: "C 1",
    });
  });

  test("an unknown number, and a circular chain, are reported", () => {
    expect(supersededBy(catalogue, "ZZ 1")).toEqual({ kind: "unknown", number: "ZZ 1", chain: ["ZZ 1"] });
    const round = [line("A 1", { replacedBy: "B 1" }), line("B 1", { replacedBy: "A 1" })];
    expect(supersededBy(round, "A 1")).toEqual({ kind: "circle", chain: ["A 1", "B 1", "A 1"] });
  });
});

test("a description that does not fit is refused by its place", () => {
  const refusals = parsePart({ ...motor, wheel: { ...motor.wheel, boreMm: "eight" }, smell: "burnt" });
  expect(refusals.ok ? "" : refusals.problems.map(problemText).join("\n")).toMatch(
    /wheel\.boreMm: expected number, got "eight"/,
  );
  expect(refusals.ok ? "" : refusals.problems.map(problemText).join("\n")).toMatch(/unknown key "smell"/);
});
