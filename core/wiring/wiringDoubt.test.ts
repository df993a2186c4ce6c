import { describe, expect, test } from "@jest/globals";
import { placeComplaint } from "../testing/placeComplaint";
import { CandidateCache } from "./compiledCandidate";
import type { PlaceReading } from "./placeReading";
import { believeWiring } from "./wiringBelief";
import { wiringDoubt } from "./wiringDoubt";

const cache = new CandidateCache();
const seen = { speeds: 3, speedPart: "pack" } as const;
const complaint = placeComplaint(["none", "none", "normal"]);
const doubtAfter = (readings: readonly PlaceReading[]) => wiringDoubt(believeWiring(seen, readings, cache));

describe("the doubt in the likeliest wiring", () => {
  test("what every wiring has is certain; a relay that may not be there is as doubtful as the wirings without it", () => {
    const belief = believeWiring(seen, complaint, cache);
    const doubt = wiringDoubt(belief);
    for (const part of ["M1", "R1", "S2", "G1"]) expect(doubt[part]).toBeCloseTo(0, 9);
    const [first] = belief.candidates;
    if (!first?.candidate.facts.relay) throw new Error("the likeliest wiring of such a car has a relay");
    const without = belief.candidates.filter(
      ({ candidate }) => !candidate.circuit.parts.some(({ id, kind }) => id === "K1" && kind === "relay"),
    );
    expect(doubt.K1).toBeCloseTo(
      without.reduce((sum, { p }) => sum + p, 0),
      9,
    );
    expect(doubt.K1).toBeGreaterThan(0.2);
  });

  test("a light on both motor pins with the blower off settles the side, and the wires of that side with it", () => {
    const lit: PlaceReading = {
      test: "light",
      at: "motor-plug",
      clip: "ground",
      key: "run",
      setting: "0",
      seen: { a: "bright", b: "bright" },
    };
    const { candidates } = believeWiring(seen, complaint, cache);
    const toGround = candidates[0]?.candidate.circuit.wires.find(
      ({ from, to }) => [from, to].includes("S2.C") && [from, to].includes("E1.31"),
    );
    if (!toGround) throw new Error("the likeliest wiring of such a car switches the ground");
    expect(doubtAfter(complaint)[toGround.id]).toBeGreaterThan(0.2);
    expect(doubtAfter([...complaint, lit])[toGround.id]).toBeLessThan(0.05);
  });
});
