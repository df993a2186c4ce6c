import { believe } from "@core/diagnose/belief/belief";
import { type DiagnoseOptions, type Diagnosis, diagnose } from "@core/diagnose/diagnose";
import { expectedAt, supportOf } from "@core/diagnose/explain/expectation";
import { decisiveReasons, pathReason, suspectWhy } from "@core/diagnose/explain/reasons";
import { proofKinds } from "@core/diagnose/proof/proofStep";
import type { Reading } from "@core/predict/reading";
import { heard, shippedEngine } from "@core/testing/shippedCircuit";
import { describe, expect, test } from "@jest/globals";
import { clearedText, conflictText, declinedText, reasonText, suspectWhyText } from "./reasonWords";
import { expectationText } from "./tests/testText";
import { proofText } from "./whatProves";

const engine = shippedEngine("whimbrel-four-speed");
const { circuit } = engine.netlist;
const sizesOf = (family: string): number[] =>
  engine.variants.flatMap((variant, index) => (variant.family === family ? [index] : []));

describe("the path argument in words", () => {
  test.each<[string, Record<string, "none" | "weak" | "normal">, RegExp | null]>([
    ["nothing dead", { "1": "normal", "4": "normal" }, null],
    [
      "only the lowest",
      { "1": "none", "2": "normal", "3": "normal", "4": "normal" },
      /^Speed 1 is dead and needs .*resistor pack, coil e1 \(R1\.e1\).*\. Speeds 2, 3 and 4 work without them\.$/,
    ],
    [
      "the two lowest",
      { "1": "none", "2": "none", "3": "normal", "4": "normal" },
      /^Speeds 1 and 2 are dead and all need .*R1\.e2/,
    ],
    [
      "only the top",
      { "1": "normal", "2": "normal", "3": "normal", "4": "none" },
      /^Speed 4 is dead and needs .*S2\.H/,
    ],
    [
      "all",
      { "1": "none", "2": "none", "3": "none", "4": "none" },
      /the whole path from feed to ground: \d+ parts, pins and wires\.$/,
    ],
    ["off is no speed", { off: "none" }, null],
  ])("%s", (_, speeds, expected) => {
    const found = pathReason(engine, heard(speeds));
    const reason = found && reasonText(circuit, found);
    if (expected) expect(reason).toMatch(expected);
    else expect(reason).toBeNull();
  });

  test("a weak speed proves no path either way", () => {
    const found = pathReason(engine, heard({ "1": "none", "2": "weak", "3": "weak", "4": "weak" }));
    const reason = found && reasonText(circuit, found);
    expect(reason).toMatch(/^Speed 1 is dead and/);
    expect(reason).not.toContain("work");
  });
});

describe("why a suspect stands where it does", () => {
  const readings: Reading[] = [
    ...heard({ "1": "none", "2": "none", "3": "none", "4": "normal" }),
    { test: "light", probe: "X5:4", clip: "G1.-", key: "run", setting: "2", seen: "bright" },
    { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
  ];
  const belief = believe(engine, readings);
  const support = supportOf(engine, belief);

  const why = (family: string): string =>
    suspectWhyText(circuit, suspectWhy(engine, belief, support, sizesOf(family)));

  test("for the truth: the ohms, by how much; against a fuse: the speed that works, and what it predicts", () => {
    expect(why("R1.link:open")).toMatch(/^(Strong|Clear|Some) evidence for it: reading [56] \(.*\)\.$/);
    expect(why("F7:blown")).toMatch(/evidence against it: reading \d.*\. This fault would give \w+/);
    const nothing = believe(engine, []);
    expect(
      suspectWhyText(circuit, suspectWhy(engine, nothing, supportOf(engine, nothing), sizesOf("F7:blown"))),
    ).toMatch(/^No readings yet/);
  });

  test("against a rival: what it would have shown", () => {
    const against = decisiveReasons(engine, belief, support, sizesOf("R1.link:open"), {
      parts: ["W11"],
      variants: sizesOf("W11:open"),
    });
    expect(against.map((reason) => reasonText(circuit, reason)).join("\n")).toMatch(
      /^Ohms from .*\(R1\.T1\) to .*\(R1\.T4\).*: OL \(open\), a sound vehicle shows 2\.\d+ Ω \(reading 6\)\. With a fault in wire W11 it would be 2\.\d+ Ω\.$/m,
    );
    expect(decisiveReasons(engine, belief, support, sizesOf("R1.link:open"), null)).toEqual([]);
  });
});

describe("what a test would show", () => {
  const [link = 0] = sizesOf("R1.link:open");
  const [fuse = 0] = sizesOf("F7:blown");
  test.each<[Reading, number, RegExp]>([
    [{ test: "airflow", key: "run", setting: "2", seen: "none" }, link, /^nothing$/],
    [{ test: "airflow", key: "run", setting: "4", seen: "none" }, link, /^normal$/],
    [{ test: "volts", red: "F7.out", black: "G1.-", key: "run", setting: "4", volts: 0 }, link, /^12\.\d V$/],
    [{ test: "volts", red: "F7.out", black: "G1.-", key: "run", setting: "4", volts: 0 }, fuse, /^0\.0 V$/],
    [{ test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: 1 }, link, /^OL \(open\)$/],
    [{ test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: 1 }, fuse, /^2\.2\d Ω$/],
    [{ test: "amps", around: "M1", key: "run", setting: "4", amps: 0 }, fuse, /^0\.0 A$/],
  ])("%j", (reading, variant, text) =>
    expect(expectationText(expectedAt(engine, reading, variant))).toMatch(text),
  );
});

const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });

const linkOpen: Reading[] = [
  ...onlyTop,
  { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null },
];

function diagnosed(readings: readonly Reading[], options: DiagnoseOptions = {}): Diagnosis {
  const found = diagnose(engine, readings, options);
  if (!found.ok) throw new Error("refused");
  return found.value;
}

describe("conflicts", () => {
  test("two readings that cannot both be right are named, and the likelier slip is to be repeated", () => {
    const readings: Reading[] = [
      ...heard({ "1": "none", "2": "none", "3": "none", "4": "none" }),
      { test: "volts", red: "X3:1", black: "G1.-", key: "run", setting: "4", volts: 12.2 },
      { test: "light", probe: "X3:1", clip: "G1.-", key: "run", setting: "4", seen: "dark" },
      { test: "light", probe: "X3:2", clip: "G1.+", key: "run", setting: "4", seen: "bright" },
      { test: "spin", at: "M1", seen: "free" },
    ];
    const [conflict] = diagnosed(readings).conflicts;
    expect(conflict && conflictText(circuit, conflict)).toMatch(
      /^Readings 5 \(volts.*\) and 6 \(test light.*\) cannot both be right\. Reading \d is more likely to be wrong: repeat it\.$/,
    );
    expect([4, 5]).toContain(conflict?.reading);
  });

  test("readings are called by the numbers of the list they stand in, where struck ones count", () => {
    const readings: Reading[] = [
      ...heard({ "1": "none", "2": "none", "3": "none", "4": "none" }),
      { test: "volts", red: "X3:1", black: "G1.-", key: "run", setting: "4", volts: 12.2 },
      { test: "light", probe: "X3:1", clip: "G1.-", key: "run", setting: "4", seen: "dark" },
      { test: "light", probe: "X3:2", clip: "G1.+", key: "run", setting: "4", seen: "bright" },
      { test: "spin", at: "M1", seen: "free" },
    ];
    const { conflicts, suspects } = diagnosed(readings, { numbers: [1, 2, 3, 4, 7, 9, 10, 12] });
    expect(conflicts[0] && conflictText(circuit, conflicts[0])).toMatch(
      /^Readings 7 \(volts.*\) and 9 \(test light.*\) cannot both be right\. Reading [79] is more likely to be wrong: repeat it\.$/,
    );
    expect([4, 5]).toContain(conflicts[0]?.reading);
    const cited = suspects.flatMap(({ why }) =>
      [...suspectWhyText(circuit, why).matchAll(/reading (\d+) \(/g)].map(([, number]) => Number(number)),
    );
    expect(cited.length).toBeGreaterThan(0);
    for (const number of cited) expect([1, 2, 3, 4, 7, 9, 10, 12]).toContain(number);
  });
});

describe("reasons", () => {
  test("every suspect has one, and every cleared part says which reading cleared it and what it predicts", () => {
    const { suspects } = diagnosed(linkOpen, { explainAll: true });
    expect(
      suspects.every(({ why }) => suspectWhyText(circuit, why).length > 20 && why.kind !== "unlikely"),
    ).toBe(true);
    const { cleared } = diagnosed(onlyTop, { explainAll: true });
    const fuse = cleared?.find(({ part }) => part === "F7");
    expect(fuse && clearedText(circuit, fuse)).toMatch(
      /^Cleared mainly by reading 4 \(air on speed 4.*: normal\)\. Its most likely remaining fault \(.*\) would give nothing\.$/,
    );
    expect(cleared?.some(({ part }) => part === "R1")).toBe(false);
  });
});

test("what is declined says what is still proven", () => {
  expect(declinedText(circuit, { part: "A1", reason: "data-bus" })).toMatch(
    /data bus.*fuses, feeds and grounds.*maker's procedure/,
  );
  expect(declinedText(circuit, { part: "M1", reason: "brushless" })).toMatch(
    /blower motor M1 is brushless.*maker's procedure/,
  );
});

describe("what proves a part", () => {
  test.each(proofKinds)(
    "%s is one plain sentence with the part's name or the battery's or the motor's",
    (says) => {
      const text = proofText(circuit, "M1", says);
      expect(text).toMatch(/^[A-Z][^.]+[a-z0-9]$/);
      expect(text).toMatch(/M1|battery|motor/);
    },
  );

  test("a proved part is told with its readings, damage beside it as work, and a missing proof as a test", () => {
    const reading: Reading = { test: "look", at: "X5", seen: "melted" };
    const cited = [
      { number: 5, reading },
      { number: 6, reading },
    ];
    expect(reasonText(circuit, { kind: "proved", part: "M1", says: "no-better-on-leads", cited })).toBe(
      "Fed straight from the battery, the blower motor M1 runs no better (readings 5 and 6).",
    );
    expect(reasonText(circuit, { kind: "renew-too", at: "X5", seen: "melted" })).toMatch(
      /^The resistor plug X5 was seen melted: put that right too\.$/,
    );
    expect(reasonText(circuit, { kind: "renew-too", at: "X5", seen: "wet" })).toMatch(/find the leak/);
    expect(reasonText(circuit, { kind: "unproved", test: { test: "spin", at: "M1" } })).toMatch(
      /^Almost certain, but not proved\. Prove it first: .*M1.*\.$/,
    );
  });
});
