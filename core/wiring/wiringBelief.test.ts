import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { believe, slipMixed } from "../diagnose/belief/belief";
import { scoreReading } from "../diagnose/belief/readingScore";
import { repairText } from "../fault/repair";
import type { Reading } from "../predict/reading";
import { placeComplaint } from "../testing/placeComplaint";
import { CandidateCache } from "./compiledCandidate";
import type { fuseStates, PlaceReading } from "./placeReading";
import type { SeenCar } from "./seenCar";
import { weighCandidate } from "./weighedCandidate";
import { believeWiring, type WiringBelief } from "./wiringBelief";
import { wiringPlans } from "./wiringPlan";

const cache = new CandidateCache();
const pack: SeenCar = { controls: "dial", speeds: 3, speedPart: "pack" };
const complaint = placeComplaint(["none", "none", "normal"]);
const motorPlug = (a: "bright" | "dark", b: "bright" | "dark"): PlaceReading => ({
  test: "light",
  at: "motor-plug",
  clip: "ground",
  key: "run",
  setting: "0",
  seen: { a, b },
});
const side = ({ candidates }: WiringBelief, wanted: string): number =>
  candidates.reduce((sum, { candidate, p }) => (candidate.facts.switchedSide === wanted ? sum + p : sum), 0);
const repairs = (belief: WiringBelief): Record<string, number> =>
  Object.fromEntries([...belief.repairs].map(([repair, p]) => [repairText(repair), p]));

/** Repairs of a vehicle dead on every speed, with no feed at its motor, once its fuses have been tested. */
function deadWithFuses(seen: Readonly<Record<string, (typeof fuseStates)[number]>>): Record<string, number> {
  const car: SeenCar = { controls: "dial", speeds: 4, speedPart: "pack", blowers: 1 };
  const top = { key: "run", setting: "4" } as const;
  const readings: PlaceReading[] = [
    ...placeComplaint(["none", "none", "none", "none"]),
    { ...motorPlug("dark", "dark"), ...top },
    { test: "light", at: "fuses", clip: "ground", ...top, seen },
  ];
  return repairs(believeWiring(car, readings, cache));
}

describe("belief over wirings and faults together", () => {
  test("sums to 1, and a complaint alone says nothing of the side", () => {
    const belief = believeWiring(pack, complaint, cache);
    expect(belief.candidates.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1, 9);
    expect(Object.values(repairs(belief)).reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 6);
    // Only the top speed blows: the pack, on either side (common practice, no source).
    expect(repairs(belief).pack).toBeGreaterThan(0.6);
    expect(Math.abs(side(belief, "ground") - 0.6)).toBeLessThan(0.1);
  });

  // Common practice, no source: with the blower off, feed on both motor pins means a switched ground, on none a
  // switched feed.
  test.each([
    ["bright", "ground"],
    ["dark", "feed"],
  ] as const)("a light on both motor pins with the blower off, %s, shows a switched %s", (seen, wanted) => {
    const belief = believeWiring(pack, [...complaint, motorPlug(seen, seen)], cache);
    expect(side(belief, wanted)).toBeGreaterThan(0.97);
  });

  // Common practice, no source: a fuse with power at one end is blown, and seldom one of another circuit by chance.
  test("a blown fuse among others means the fuse, whatever the rest of them feed", () => {
    const of = deadWithFuses({ a: "dead", b: "blown", c: "good" });
    const others = Object.entries(of).filter(([repair]) => !repair.includes("fuse"));
    expect(others.reduce((sum, [, p]) => sum + p, 0)).toBeLessThan(0.08);
  });

  // Common practice, no source: with every fuse of the blower good, its wiring is suspected and not one more fuse.
  test("fuses that are all good leave little for one that nobody found", () => {
    const of = deadWithFuses({ a: "good", b: "good" });
    expect(of.feed).toBeGreaterThan(2 * (of.fuse ?? 0));
  });

  test("a relay that is found rules out wirings without one, and one that is not found makes them likelier", () => {
    const relay = ({ candidates }: WiringBelief): number =>
      candidates.reduce((sum, { candidate, p }) => (candidate.facts.relay ? sum + p : sum), 0);
    const before = relay(believeWiring(pack, complaint, cache));
    const swap = { test: "swap", at: "relay", key: "run", setting: "3" } as const;
    expect(relay(believeWiring(pack, [...complaint, { ...swap, seen: "same" }], cache))).toBeGreaterThan(
      0.97,
    );
    expect(relay(believeWiring(pack, [...complaint, { ...swap, absent: true }], cache))).toBeLessThan(before);
  });
});

describe("labels of pins", () => {
  const values = { a: "dark", b: "bright", c: "dark" } as const;
  const light = (seen: Record<string, "bright" | "dark">): PlaceReading => ({
    test: "light",
    at: "pack-plug",
    clip: "ground",
    key: "run",
    setting: "1",
    seen,
  });

  test("say nothing: any other names give the same belief", () => {
    const plain = repairs(believeWiring(pack, [...complaint, light(values)], cache));
    fc.assert(
      fc.property(fc.shuffledSubarray(["a", "b", "c", "d", "k"], { minLength: 3, maxLength: 3 }), (names) => {
        const renamed = Object.fromEntries(Object.values(values).map((seen, at) => [names[at] ?? "", seen]));
        const other = repairs(believeWiring(pack, [...complaint, light(renamed)], cache));
        for (const [repair, p] of Object.entries(plain)) expect(other[repair]).toBeCloseTo(p, 6);
      }),
      { numRuns: 6 },
    );
  });

  /** Every order of some things. */
  const orders = (of: readonly number[]): number[][] =>
    of.length < 2
      ? [[...of]]
      : of.flatMap((one) => orders(of.filter((own) => own !== one)).map((rest) => [one, ...rest]));

  // The sum over assignments by brute force: a permanent, written out (H. Minc, "Permanents", 1978). Pins that look alike
  // have the most assignments that matter.
  test.each([
    [3, { a: "dark", b: "bright", c: "dark" }],
    [4, { a: "dark", b: "dark", c: "dark", d: "dark" }],
    [5, { a: "bright", b: "bright", c: "bright", d: "bright", e: "bright" }],
    [6, { a: "dark", b: "dark", c: "dark", d: "bright", e: "dark", f: "dark" }],
  ] as const)(
    "of a pack with %d pins are matched to pins by the sum over all assignments",
    (speeds, seen) => {
      const plan = wiringPlans({ ...pack, speeds }).find(
        ({ plan: own }) =>
          own.drive === "resistor" && own.switchedSide === "feed" && !own.highRelay && !own.highAtPack,
      );
      if (!plan) throw new Error("no such plan");
      const own = cache.compile(plan);
      const { compiled, candidate } = own;
      const pins = candidate.plugs.get("pack-plug")?.pins ?? [];
      expect(pins).toHaveLength(speeds);
      const told = placeComplaint(
        Array.from({ length: speeds }, (_, at) => (at === speeds - 1 ? "normal" : "none")),
      );
      const weighed = weighCandidate(own, [...told, light(seen)]);
      const begun = believe(
        compiled,
        told.map((reading) => ({ ...reading, at: "M1" }) as Reading),
      );
      const scored = pins.map(({ point }) =>
        (["bright", "dark"] as const).map((lit) => {
          const reading = {
            test: "light",
            probe: point,
            clip: "G1.-",
            key: "run",
            setting: "1",
            seen: lit,
          } as const;
          return { lit, reading, score: scoreReading(compiled, reading) };
        }),
      );
      const labels: readonly ("bright" | "dark")[] = Object.values(seen);
      const all = orders(pins.map((_, at) => at));
      let total = 0;
      for (const order of all) {
        const read = order.flatMap((pin, at) => scored[pin]?.find(({ lit }) => lit === labels[at]) ?? []);
        begun.joint.forEach((weight, cell) => {
          total += read.reduce(
            (product, { reading, score }) => product * slipMixed(reading, score.odds[cell] ?? 0, score.blind),
            weight / all.length,
          );
        });
        total += read.reduce((product, { score }) => product * score.unlisted, begun.unknown / all.length);
      }
      // A quarter of all plugs has a further wire; this one has none.
      expect(weighed.evidence).toBeCloseTo(begun.evidence + Math.log(total * 0.75), 3);
    },
  );

  // By brute force too: a meter between two labels is read the right way round or the other.
  test("that a measurement joins are matched together", () => {
    const [plan] = wiringPlans(pack);
    if (!plan) throw new Error("no such plan");
    const own = cache.compile(plan);
    const { compiled, candidate } = own;
    const across = { test: "volts", key: "run", setting: "3", volts: 12.2 } as const;
    const weighed = weighCandidate(own, [
      ...complaint,
      { ...across, red: "motor-plug:a", black: "motor-plug:b" },
    ]);
    const begun = believe(
      compiled,
      complaint.map((reading) => ({ ...reading, at: "M1" }) as Reading),
    );
    const [plus = "", minus = ""] = (candidate.plugs.get("motor-plug")?.pins ?? []).map(({ point }) => point);
    let total = 0;
    for (const [red, black] of [
      [plus, minus],
      [minus, plus],
    ] as const) {
      const reading: Reading = { ...across, red, black };
      const score = scoreReading(compiled, reading);
      begun.joint.forEach((weight, cell) => {
        total += (weight / 2) * slipMixed(reading, score.odds[cell] ?? 0, score.blind);
      });
      total += (begun.unknown / 2) * score.unlisted;
    }
    expect(weighed.evidence).toBeCloseTo(begun.evidence + Math.log(total * 0.75), 3);
    expect(weighed.meanings().get("motor-plug")?.get("a")?.pin?.role).toBe("plus");
  });

  test("a wire that belongs to nothing is allowed, and costs little", () => {
    const four = { ...values, d: "bright" } as const;
    const belief = believeWiring(pack, [...complaint, motorPlug("dark", "dark"), light(four)], cache);
    expect(repairs(belief).pack).toBeGreaterThan(0.5);
  });
});
