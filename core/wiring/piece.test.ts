import { describe, expect, test } from "@jest/globals";
import { readingProblems } from "../predict/readingProblems";
import { CandidateCache, type CompiledCandidate } from "./compiledCandidate";
import { type LabelledPin, type Meaning, type Piece, piecesOf } from "./piece";
import type { PlaceReading } from "./placeReading";
import { concreteReadings } from "./placeTest";
import { wiringPlans } from "./wiringPlan";

const cache = new CandidateCache();

function candidate(drive: "resistor" | "pwm", switchedSide: "ground" | "feed"): CompiledCandidate {
  const plan = wiringPlans({ speeds: 4 }).find(
    ({ plan: own }) =>
      own.drive === drive &&
      own.switchedSide === switchedSide &&
      own.relay &&
      !("highRelay" in own && (own.highRelay || own.highAtPack)),
  );
  if (!plan) throw new Error("no such plan");
  return cache.compile(plan);
}
const pack = candidate("resistor", "ground");
const control = candidate("pwm", "ground");

/** What labels stand for if a is a plug's first pin or the first fuse, b the second, and so on. */
const inOrder =
  ({ candidate: own }: CompiledCandidate) =>
  ({ place, label }: LabelledPin): Meaning => {
    const at = label.charCodeAt(0) - 97;
    return place === "fuses"
      ? { pin: null, fuse: own.fuses[at] ?? null }
      : { pin: own.plugs.get(place)?.pins[at] ?? null, fuse: null };
  };
const pieces = (own: CompiledCandidate, reading: PlaceReading): Piece[] =>
  piecesOf(own.candidate, own.compiled.netlist, reading);
const concrete = (own: CompiledCandidate, reading: PlaceReading) =>
  pieces(own, reading).flatMap((piece) => concreteReadings(piece, inOrder(own)));

const run = { key: "run", setting: "2" } as const;

describe("a reading by place, as one wiring understands it", () => {
  test.each<[string, PlaceReading, readonly object[]]>([
    [
      "a lamp at each pin of a plug",
      { test: "light", at: "motor-plug", clip: "ground", ...run, seen: { a: "bright", b: "dark" } },
      [
        { test: "light", ...run, probe: "X1:1", clip: "G1.-", seen: "bright" },
        { test: "light", ...run, probe: "X1:2", clip: "G1.-", seen: "dark" },
      ],
    ],
    [
      "a lamp clipped to feed",
      { test: "light", at: "motor-plug", clip: "feed", ...run, seen: { b: "bright" } },
      [{ test: "light", ...run, probe: "X1:2", clip: "G1.+", seen: "bright" }],
    ],
    [
      "a fuse with one end lit",
      { test: "light", at: "fuses", clip: "ground", ...run, seen: { a: "blown" } },
      [
        { test: "light", ...run, probe: "F1.in", clip: "G1.-", seen: "bright" },
        { test: "light", ...run, probe: "F1.out", clip: "G1.-", seen: "dark" },
      ],
    ],
    [
      "a fuse that nothing feeds",
      { test: "light", at: "fuses", clip: "ground", ...run, seen: { a: "dead" } },
      [
        { test: "light", ...run, probe: "F1.in", clip: "G1.-", seen: "dark" },
        { test: "light", ...run, probe: "F1.out", clip: "G1.-", seen: "dark" },
      ],
    ],
    [
      "volts against ground",
      { test: "volts", at: "pack-plug", black: "ground", ...run, volts: { a: 3.1 } },
      [{ test: "volts", ...run, red: "X2:1", black: "G1.-", volts: 3.1 }],
    ],
    [
      "volts against feed",
      { test: "volts", at: "pack-plug", red: "feed", ...run, volts: { a: 3.1 } },
      [{ test: "volts", ...run, red: "G1.+", black: "X2:1", volts: 3.1 }],
    ],
    [
      "volts across the motor",
      { test: "volts", red: "motor-plug:a", black: "motor-plug:b", ...run, volts: 5.5 },
      [{ test: "volts", ...run, red: "X1:1", black: "X1:2", volts: 5.5 }],
    ],
    [
      "volts from a pin to feed",
      { test: "volts", red: "feed", black: "motor-plug:b", ...run, volts: 5.5 },
      [{ test: "volts", ...run, red: "G1.+", black: "X1:2", volts: 5.5 }],
    ],
    [
      "ohms from a pin, which does not measure itself",
      { test: "ohms", at: "pack-plug", from: "a", ohms: { a: 0, b: 1.2, d: null } },
      [
        { test: "ohms", red: "R1.T1", black: "R1.T2", unplugged: ["X2"], ohms: 1.2 },
        { test: "ohms", red: "R1.T1", black: "R1.T4", unplugged: ["X2"], ohms: null },
      ],
    ],
    [
      "fused leads at the motor",
      { test: "airflow", leads: true, seen: "normal" },
      [
        {
          test: "airflow",
          at: "M1",
          unplugged: ["X1"],
          bridged: [
            ["G1.+", "M1.+"],
            ["G1.-", "M1.-"],
          ],
          seen: "normal",
        },
      ],
    ],
    [
      "a complaint, with what it says of the time",
      { test: "airflow", heard: true, ...run, pattern: "comes-and-goes", seen: "none" },
      [{ test: "airflow", heard: true, ...run, at: "M1", pattern: "comes-and-goes", seen: "none" }],
    ],
    [
      "the load lamp",
      { test: "lampload", lampFor: "motor-plug", ...run, seen: "dim" },
      [{ test: "lampload", ...run, lampFor: "M1", seen: "dim" }],
    ],
    [
      "a plug seen",
      { test: "look", at: "pack-plug", seen: "melted" },
      [{ test: "look", at: "X2", seen: "melted" }],
    ],
    [
      "a wheel turned",
      { test: "spin", at: "motor", seen: "stiff" },
      [{ test: "spin", at: "M1", seen: "stiff" }],
    ],
    [
      "a relay swapped",
      { test: "swap", at: "relay", seen: "same" },
      [{ test: "swap", at: "K1", seen: "same" }],
    ],
    [
      "a noise",
      { test: "listen", ...run, ventCovered: true, seen: "whistle", followsSpeed: true },
      [{ test: "listen", ...run, ventCovered: true, seen: "whistle", followsSpeed: true }],
    ],
    ["a smell", { test: "smell", seen: "burnt" }, [{ test: "smell", seen: "burnt" }]],
    [
      "an answer",
      { test: "history", of: "damp", seen: "yes" },
      [{ test: "history", of: "damp", seen: "yes" }],
    ],
  ])("%s", (_, reading, expected) => {
    const made = concrete(pack, reading);
    expect(made).toEqual(expected);
    // The candidate's own circuit has every point and part that it names.
    for (const own of made) expect(readingProblems(pack.compiled, own)).toEqual([]);
  });

  test("a clamp shows no sign, so each wire gets the sign that a sound vehicle gives it", () => {
    const amps = (own: CompiledCandidate, place: "motor-plug" | "pack-plug", label: string) =>
      concrete(own, { test: "amps", around: `${place}:${label}`, ...run, amps: 17 })[0];
    for (const own of [pack, control])
      for (const label of ["a", "b"]) {
        const reading = amps(own, "motor-plug", label);
        expect(reading?.test === "amps" && Math.abs(reading.amps)).toBe(17);
      }
    // The feed wire runs from the relay to the motor in the file; the other one runs from the joint to the motor, against
    // the current.
    const [feed, back] = ["a", "b"].map((label) => amps(pack, "motor-plug", label));
    expect(feed?.test === "amps" && feed.amps).toBe(17);
    expect(back?.test === "amps" && back.amps).toBe(-17);
  });

  test("a setting above the strongest is the strongest", () => {
    const [own] = concrete(pack, { test: "airflow", key: "run", setting: "7", seen: "none" });
    expect(own?.setting).toBe("4");
  });

  test.each<[string, PlaceReading, boolean, boolean]>([
    ["a plug that the wiring has not", { test: "look", at: "module-plug", seen: "wet" }, true, false],
    ["volts at such a plug", { test: "volts", red: "panel-plug:a", black: "ground", volts: 1 }, true, false],
    ["a clamp at such a plug", { test: "amps", around: "module-plug:a", amps: 1 }, true, false],
    ["a relay that the vehicle has not", { test: "swap", at: "relay", absent: true }, false, true],
    ["a control that the vehicle has not", { test: "look", at: "module", absent: true }, false, false],
  ])("%s counts for or against the wiring itself", (_, reading, seen, has) => {
    expect(pieces(pack, reading)).toEqual([expect.objectContaining({ kind: "there", seen, has })]);
  });

  test("a wire that belongs to nothing tells nothing of the circuit", () => {
    const [piece] = pieces(pack, { test: "light", at: "motor-plug", clip: "ground", seen: { a: "bright" } });
    expect(piece && concreteReadings(piece, () => ({ pin: null, fuse: null }))).toEqual([]);
  });

  test("wires at a plug are thick or thin", () => {
    const seen = pieces(pack, { test: "wires", at: "pack-plug", seen: { a: "BK/YE thick", b: "RD thin" } });
    expect(seen.map((piece) => piece.kind === "wire" && piece.heavy)).toEqual([true, false]);
  });
});
