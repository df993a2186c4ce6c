// What proves a part: the trade's rules for condemning one (common practice, no source).
import { describe, expect, test } from "@jest/globals";
import { allTools } from "../../predict/observations/tool";
import type { Reading } from "../../predict/reading";
import { heard, repairIn, shippedEngine } from "../../testing/shippedCircuit";
import { fusedLeads, light, look, volts } from "../../testing/takenReadings";
import { believe } from "../belief/belief";
import { type Proof, proofOf } from "./proof";

const van = "whimbrel-four-speed";
const wagon = "siskin-linear-low";

function proof(id: string, part: string, readings: readonly Reading[]): Proof {
  const compiled = shippedEngine(id);
  return proofOf(compiled, believe(compiled, readings), repairIn(compiled, part), allTools);
}

const dead = (id: string): Reading[] =>
  heard(
    Object.fromEntries(
      shippedEngine(id).netlist.circuit.settings.map((setting) => [setting, "none" as const]),
    ),
  );
const onlyTop = heard({ off: "none", "1": "none", "2": "none", "3": "none", "4": "normal" });
const across = (setting: string, reads: number): Reading =>
  ({ ...volts("X3:1", setting, reads), black: "X3:2" }) as Reading;
const allRight = heard({ off: "none", "1": "normal", "2": "normal", "3": "normal", "4": "normal" });
const listen = (told: object): Reading => ({ test: "listen", key: "run", setting: "4", ...told }) as Reading;

/** Feed, ground and command of the wagon's control, and its output. */
const control = {
  feed: volts("X4:1", "3", 12.4),
  ground: light("X4:2", "G1.+", "3", "bright"),
  command: volts("X4:3", "3", 2.76),
  output: volts("X4:5", "3", 12.5),
};

/** A fault's circuit and part, readings that prove it, and the one without which they do not. */
const proved: readonly (readonly [string, string, string, readonly Reading[], number])[] = [
  ["feed and ground across the motor's mated plug", van, "M1", [...dead(van), across("4", 12.2)], 5],
  [
    "feed and ground at the motor's plug by lamp",
    van,
    "M1",
    [...dead(van), light("X3:1", "G1.-", "4", "bright"), light("X3:2", "G1.+", "4", "bright")],
    6,
  ],
  ["no better on fused leads", van, "M1", [...dead(van), { ...fusedLeads, seen: "none" }], 5],
  [
    "the load lamp in the motor's place lights",
    van,
    "M1",
    [...dead(van), { test: "lampload", lampFor: "M1", key: "run", setting: "4", seen: "bright" }],
    5,
  ],
  [
    "it starts when tapped",
    van,
    "M1",
    [...dead(van), { test: "tap", at: "M1", key: "run", setting: "4", seen: "starts" }],
    5,
  ],
  ["a noise that the technician hears", van, "M1", [...allRight, listen({ seen: "rumble" })], 5],
  [
    "a whistle that a finger over the vent hole stops",
    van,
    "M1",
    [...allRight, listen({ heard: true, seen: "whistle" }), listen({ ventCovered: true, seen: "quiet" })],
    6,
  ],
  [
    "an element off in ohms",
    van,
    "R1",
    [...onlyTop, { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X5"], ohms: null }],
    5,
  ],
  ["the pack seen burnt", van, "R1", [...onlyTop, look("R1", "melted")], 5],
  ["the plug seen melted", van, "X5", [...onlyTop, look("X5", "melted")], 5],
  [
    "a wiggle changes it",
    van,
    "X5",
    [...onlyTop, { test: "tap", at: "X5", key: "run", setting: "1", seen: "starts" }],
    5,
  ],
  ["the fuse seen blown", van, "F7", [...dead(van), look("F7", "blown")], 5],
  [
    "one side of the fuse fed, the other not",
    van,
    "F7",
    [...dead(van), light("F7.in", "G1.-", "4", "bright"), light("F7.out", "G1.-", "4", "dark")],
    6,
  ],
  [
    "a known-good relay cures it",
    van,
    "K3",
    [...dead(van), { test: "swap", at: "K3", key: "run", setting: "4", seen: "fixed" }],
    5,
  ],
  [
    "the control's feed, ground and command good, its output wrong",
    wagon,
    "A1",
    [...dead(wagon), control.feed, control.ground, control.command, control.output],
    9,
  ],
];

describe("a part is proved", () => {
  test.each(proved)("%s", (_, id, part, readings, deciding) => {
    const { complete, have, missing } = proof(id, part, readings);
    expect({ complete, missing: missing.length }).toEqual({ complete: true, missing: 0 });
    expect(have).toContain(deciding);
  });

  test.each(proved)("not without the last of these: %s", (_, id, part, readings, deciding) => {
    const without = readings.filter((_reading, place) => place !== deciding);
    expect(proof(id, part, without).complete).toBe(false);
  });
});

describe("a part is not proved", () => {
  test("by what was only told", () => {
    expect(proof(van, "M1", [...allRight, listen({ heard: true, seen: "rumble" })]).complete).toBe(false);
  });

  test("by what a sound vehicle shows as well", () => {
    expect(
      proof(van, "R1", [...onlyTop, look("R1", "clean"), light("X5:4", "G1.+", "4", "dark")]).complete,
    ).toBe(false);
    expect(proof(van, "M1", [...allRight, across("4", 12.2)]).complete).toBe(false);
  });

  test("by a reading taken while it worked, or by one that its repetition denies", () => {
    const working: Reading = { ...across("4", 12.2), state: "working" };
    expect(proof(van, "M1", [...dead(van), working]).complete).toBe(false);
    expect(proof(van, "M1", [...dead(van), across("4", 12.2), across("4", 0.1)]).complete).toBe(false);
  });

  test("an electronic control, before its feed, its ground and its command have been seen", () => {
    const { feed, ground, command, output } = control;
    for (const some of [[output], [feed, output], [feed, ground, output], [feed, command, output]])
      expect(proof(wagon, "A1", [...dead(wagon), ...some]).complete).toBe(false);
  });
});

describe("what is missing", () => {
  test("is the quickest way to a proof, and none of it was taken", () => {
    const { missing, complete } = proof(van, "R1", [...onlyTop, light("X5:1", "G1.+", "1", "bright")]);
    expect(complete).toBe(false);
    // The switch grounds the pack's first pin: a lamp on another one shows whether the pack passes it on.
    expect(missing.map(({ look: { test: name } }) => name)).toEqual(["light"]);
  });

  test("is nothing where the tools cannot show it", () => {
    const compiled = shippedEngine(van);
    const belief = believe(compiled, dead(van));
    const { complete, missing } = proofOf(compiled, belief, repairIn(compiled, "S2"), []);
    expect({ complete, missing: missing.length }).toEqual({ complete: false, missing: 0 });
  });

  test("of two parts is the proof of both", () => {
    const { complete, have, missing } = proof(van, "R1+X5", [...onlyTop, look("X5", "melted")]);
    expect(complete).toBe(false);
    expect(have).toContain(5);
    expect(missing.length).toBeGreaterThan(0);
  });
});
