import { describe, expect, test } from "@jest/globals";
import { RepairList } from "../fault/repair";
import { placeComplaint } from "../testing/placeComplaint";
import { CandidateCache } from "./compiledCandidate";
import { diagnoseWiring } from "./diagnoseWiring";
import type { PlaceReading } from "./placeReading";
import { placesToCheck } from "./placeRepair";
import { plugRenewal, plugToInspect } from "./plugRenewal";

const repairs = new RepairList();

// Common practice, no source: a plug that melted or took water is renewed with its part.
describe("a plug that was seen damaged", () => {
  const melted: PlaceReading = { test: "look", at: "pack-plug", seen: "melted" };

  test("is renewed with the part it is mated with, and with no other", () => {
    const renewal = plugRenewal([melted]);
    expect(renewal(["pack"])).toEqual(["pack", "pack-plug"]);
    expect(renewal(["motor", "pack"])).toEqual(["motor", "pack", "pack-plug"]);
    expect(renewal(["motor"])).toEqual(["motor"]);
    expect(renewal(["pack-plug"])).toEqual(["pack-plug"]);
    expect(renewal(["pack-plug", "pack"])).toEqual(["pack-plug", "pack"]);
  });

  test.each([
    [[{ test: "look", at: "pack-plug", seen: "corroded" }], ["pack"]],
    [[melted, { test: "look", at: "pack-plug", seen: "clean" }], ["pack"]],
    [[{ test: "look", at: "pack-plug", seen: "wet" }], ["pack", "pack-plug"]],
    [[{ test: "look", at: "pack-plug", absent: true }], ["pack"]],
  ] as [PlaceReading[], string[]][])("%j leaves the pack with %j", (readings, places) => {
    expect(plugRenewal(readings)(["pack"])).toEqual(places);
  });

  test("is in the verdict of a pack whose link is open", () => {
    const cache = new CandidateCache();
    const readings: PlaceReading[] = [
      ...placeComplaint(["none", "none", "none", "normal"]),
      { test: "look", at: "pack-plug", seen: "melted" },
      { test: "ohms", at: "pack-plug", from: "a", ohms: { b: 0.5, c: 1.1, d: null } },
    ];
    const { verdict } = diagnoseWiring({ speeds: 4, speedPart: "pack" }, readings, cache);
    expect([...verdict.replace].sort()).toEqual(["pack", "pack-plug"]);
    // It is not said that one killed the other.
    expect(verdict.killedBy).toBeNull();
  });
});

describe("a plug to inspect before the verdict", () => {
  const pack = repairs.of(["pack"]);
  const both = repairs.of(["pack", "pack-plug"]);
  const shares = (p: number) =>
    new Map([
      [pack, 1 - p],
      [both, p],
    ]);

  test("is due while it may have failed with its part and nobody has looked", () => {
    expect(plugToInspect(pack, shares(0.02), [])).toBe("pack-plug");
    expect(plugToInspect(pack, shares(0.001), [])).toBeNull();
    expect(plugToInspect(pack, shares(0.02), [{ test: "look", at: "pack-plug", seen: "clean" }])).toBeNull();
    expect(plugToInspect(both, shares(0.9), [])).toBeNull();
  });
});

// Common practice, no source: what blew a fuse or burnt a pack is found before the new one goes in.
describe("what to check before the new part goes in", () => {
  test.each([
    [["fuse"], ["blown"], ["motor", "feed"]],
    [["feed"], ["to-ground"], ["fuse"]],
    [["feed", "fuse"], ["to-ground", "blown"], ["motor"]],
    [["feed"], ["open"], []],
    [["pack"], ["open"], ["motor"]],
    [["motor", "pack"], ["tight", "open"], []],
    [["motor"], ["open"], []],
  ])("%j, %j: %j", (places, modes, check) => {
    expect(placesToCheck(repairs.of(places), modes)).toEqual(check);
  });
});
