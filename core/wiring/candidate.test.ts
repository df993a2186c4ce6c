import { describe, expect, test } from "@jest/globals";
import { declinedParts } from "../circuit/declined";
import { operatingPoint } from "../solve/operatingPoint";
import { netlistOf } from "../testing/shippedCircuit";
import { candidateOf } from "./candidateCircuit";
import type { SeenCar } from "./seenCar";
import { wiringPlans } from "./wiringPlan";

const cars: readonly SeenCar[] = [
  {},
  { controls: "dial", speeds: 4, speedPart: "pack", blowers: 1, steering: "left" },
  { controls: "buttons", speeds: 7, speedPart: "module" },
  { speeds: 1, speedPart: "pack" },
  { speeds: 2, speedPart: "pack" },
  { speeds: 5, blowers: 2 },
];

describe("the ways a vehicle may be wired", () => {
  test.each(cars)("%j: the shares sum to 1, and no two are the same", (seen) => {
    const plans = wiringPlans(seen, 0, true);
    expect(plans.reduce((sum, { prior }) => sum + prior, 0)).toBeCloseTo(1, 12);
    const ids = plans.map((own) => candidateOf(own).id);
    expect(new Set(ids).size).toBe(ids.length);
  });

  test("are those that fit what is seen", () => {
    const drives = (seen: SeenCar) => new Set(wiringPlans(seen).map(({ plan }) => plan.drive));
    expect(drives({ speedPart: "pack" })).toEqual(new Set(["resistor"]));
    expect(drives({ speedPart: "module" })).toEqual(new Set(["pwm", "linear", "bus"]));
    expect(drives({}).size).toBe(4);
    expect(wiringPlans({}, 5).every(({ plan }) => plan.speeds === 5)).toBe(true);
  });

  test("with two speeds may have a relay for each", () => {
    const relays = wiringPlans({ speeds: 2, speedPart: "pack" })
      .map((own) => candidateOf(own))
      .filter(({ facts }) => facts.lowRelays)
      .map(({ circuit }) => circuit.parts.filter(({ kind }) => kind === "relay").length);
    expect(relays).toEqual([2]);
    const ofFour = wiringPlans({ speeds: 4, speedPart: "pack" }).map(
      (own) => candidateOf(own).facts.lowRelays,
    );
    expect(ofFour).not.toContain(true);
  });

  // The circuit is solved by the same rules as a traced one: its speeds rise, off is off, and every pin is where it
  // says.
  test.each(cars.flatMap((seen) => wiringPlans(seen, 0, true).map((own) => candidateOf(own))))(
    "$id blows more at every speed, and nothing at off",
    ({ circuit, plugs, facts }) => {
      const netlist = netlistOf(circuit);
      const rpm = circuit.settings.map(
        (setting) => operatingPoint(netlist, { key: "run", setting }, []).rpm.M1 ?? 0,
      );
      expect(Math.abs(rpm[0] ?? 1)).toBeLessThan(1);
      for (const [at, own] of rpm.entries()) if (at > 0) expect(own).toBeGreaterThan((rpm[at - 1] ?? 0) + 20);
      expect(
        Math.abs(
          operatingPoint(netlist, { key: "off", setting: circuit.settings.at(-1) ?? "" }, []).rpm.M1 ?? 1,
        ),
      ).toBeLessThan(1);
      for (const { pins } of plugs.values())
        for (const { point, wire } of pins) {
          expect(netlist.nodeOf.has(point)).toBe(true);
          expect(wire).not.toBe("");
        }
      expect(declinedParts(circuit).length > 0).toBe(facts.drive === "bus");
    },
  );

  // Common practice, no source: with the blower off and the key on, a switched ground leaves feed on both motor pins, a
  // switched feed on none.
  test.each([
    ["ground", "resistor"],
    ["feed", "resistor"],
  ] as const)("a switch on the %s side shows at the motor's plug with the blower off", (side, drive) => {
    for (const plan of wiringPlans({ speeds: 4, speedPart: "pack" })) {
      if (plan.plan.switchedSide !== side || plan.plan.drive !== drive) continue;
      const { circuit } = candidateOf(plan);
      const { volts } = operatingPoint(netlistOf(circuit), { key: "run", setting: "0" }, []);
      const own = [volts["M1.+"], volts["M1.-"]].map((value) => (value ?? 0) > 9);
      expect(own).toEqual(side === "ground" ? [true, true] : [false, false]);
    }
  });
});
