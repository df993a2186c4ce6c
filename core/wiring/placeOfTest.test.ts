import { describe, expect, test } from "@jest/globals";
import type { Test } from "../predict/reading";
import { testOf } from "../predict/reading";
import { CandidateCache } from "./compiledCandidate";
import { type Meanings, meaningOf } from "./meaning";
import { type LabelledPin, type Meaning, piecesOf } from "./piece";
import type { PlugPlace } from "./place";
import { placeTestFor } from "./placeOfTest";
import { concreteReadings, freshLabels, type PlaceTest, placeTestKey, withAnyResult } from "./placeTest";
import { placeTests } from "./placeTests";
import { believeWiring } from "./wiringBelief";

const cache = new CandidateCache();
const { candidates } = believeWiring({ speeds: 3 }, [], cache);

describe.each(candidates.map((own) => [own.candidate.id, own] as const))("on %s", (_, own) => {
  const { candidate, compiled } = own;
  const meanings: Meanings = new Map<LabelledPin["place"], ReadonlyMap<string, Meaning>>([
    ...[...candidate.plugs].map(([place, { pins }]): [PlugPlace, ReadonlyMap<string, Meaning>] => [
      place,
      new Map(pins.map((pin, at) => [freshLabels(pins.length)[at] ?? "", { pin, fuse: null }])),
    ]),
    ["fuses", new Map(candidate.fuses.map((fuse, at) => [freshLabels(9)[at] ?? "", { pin: null, fuse }]))],
  ]);
  const labels = new Map([...meanings].map(([place, at]) => [place as string, [...at.keys()]]));

  // There and back: what a test by place comes to on the circuit is the same test by place again.
  test("every test by place is found again from what it comes to on the circuit", () => {
    const common = candidate.plugs.has("switch-plug") ? "a" : null;
    const tests = placeTests([own], labels, common).filter((one) => one.test !== "wires");
    expect(tests.length).toBeGreaterThan(30);
    for (const one of tests) {
      const at = "at" in one && one.at ? one.at : "";
      const reading = withAnyResult(one, labels.get(at) ?? []);
      const concrete = piecesOf(candidate, compiled.netlist, reading)
        .flatMap((piece) => concreteReadings(piece, (of) => meaningOf(meanings, of)))
        .map(testOf);
      expect(concrete.length).toBeGreaterThan(0);
      for (const made of concrete)
        expect(keyOf(placeTestFor(candidate, meanings, made))).toBe(placeTestKey(one));
    }
  });

  test.each<[string, Test]>([
    ["a joint in the loom", { test: "light", probe: "J1.s", clip: "G1.-", key: "run", setting: "1" }],
    ["a lamp between two pins", { test: "light", probe: "X1:1", clip: "X1:2", key: "run", setting: "1" }],
    [
      "a measurement with another plug pulled",
      { test: "volts", red: "X1:1", black: "G1.-", key: "run", setting: "1", unplugged: ["X2"] },
    ],
    ["ohms between two plugs", { test: "ohms", red: "X1:1", black: "X2:1" }],
  ])("%s is not asked of somebody without a diagram", (__, asked) => {
    expect(placeTestFor(candidate, meanings, asked)).toBeNull();
  });
});

const keyOf = (made: PlaceTest | null): string => (made ? placeTestKey(made) : "none");

test("pins without a label yet are read at the whole plug", () => {
  const [own] = candidates;
  if (!own) throw new Error("no candidate");
  const across: Test = { test: "volts", red: "X1:1", black: "X1:2", key: "run", setting: "3" };
  expect(placeTestFor(own.candidate, new Map(), across)).toEqual({
    test: "volts",
    at: "motor-plug",
    black: "ground",
    key: "run",
    setting: "3",
  });
});
