import { describe, expect, test } from "@jest/globals";
import { nominalValues } from "../../solve/netlist/values";
import { shippedIds, shippedNetlist } from "../../testing/shippedCircuit";
import { vehicleSamples } from "./vehicleSample";

const netlist = shippedNetlist("whimbrel-four-speed");
const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;
const deviation = (values: readonly number[]): number =>
  Math.sqrt(mean(values.map((v) => (v - mean(values)) ** 2)));

describe("vehicles sampled from the tolerances", () => {
  test("the first is nominal, and the same seed gives the same samples", () => {
    const draws = vehicleSamples(netlist, 16, 20);
    expect(draws).toHaveLength(16);
    expect(draws[0]?.values).toEqual(nominalValues(netlist));
    expect(draws[0]).toMatchObject({ airflowBias: 1, severity: 0.5 });
    expect(vehicleSamples(netlist, 16, 20)).toEqual(draws);
    expect(vehicleSamples(netlist, 16, 21)).not.toEqual(draws);
  });

  test("no value is zero, negative or infinite, on any circuit", () => {
    for (const id of shippedIds)
      for (const { values } of vehicleSamples(shippedNetlist(id), 40, 5)) {
        expect(values.ohms.every((ohms) => ohms > 0 && Number.isFinite(ohms))).toBe(true);
        for (const motor of values.motors) {
          expect(Math.min(motor.ohms, motor.k, motor.friction, motor.fan)).toBeGreaterThan(0);
        }
        for (const [relay, pullIn] of values.pullInVolts.entries())
          expect(values.dropOutVolts[relay]).toBeLessThan(pullIn * 1.2);
      }
  });

  test("a wire scatters by 5 %, an element by 5 %, a contact by 35 %, in logarithms", () => {
    const draws = vehicleSamples(netlist, 3000, 1).slice(1);
    const nominal = nominalValues(netlist);
    const spread = (branch: string): number => {
      const at = netlist.branchOf.get(branch) ?? -1;
      return deviation(
        draws.map(({ values }) => Math.log((values.ohms[at] as number) / (nominal.ohms[at] as number))),
      );
    };
    // A sample deviation of 3 000 lies within 4 % of the true one nearly always (σ/√2n).
    expect(spread("W9") / 0.05).toBeCloseTo(1, 1);
    expect(spread("R1.e1") / 0.05).toBeCloseTo(1, 1);
    expect(spread("X5:4") / 0.35).toBeCloseTo(1, 1);
  });

  test("battery volts and severities are stratified, not left to chance", () => {
    const draws = vehicleSamples(netlist, 33, 20).slice(1);
    const severities = draws.map(({ severity }) => severity).sort((a, b) => a - b);
    for (const [i, severity] of severities.entries()) expect(severity).toBeCloseTo((i + 0.5) / 32, 9);
    const volts = draws.map(({ values }) => values.restVolts);
    expect(mean(volts)).toBeCloseTo(nominalValues(netlist).restVolts, 2);
    expect(deviation(volts)).toBeCloseTo(0.22, 1);
    // Not sorted alike: a weak battery does not always come with a mild fault.
    const correlation =
      mean(draws.map((d, i) => ((volts[i] as number) - mean(volts)) * (d.severity - 0.5))) /
      (deviation(volts) * deviation(draws.map((d) => d.severity)));
    expect(Math.abs(correlation)).toBeLessThan(0.5);
  });

  test("a value marked as a guess scatters more", () => {
    const guessed = {
      ...netlist,
      branches: netlist.branches.map((branch) => ({ ...branch, assumed: true })),
    };
    const at = netlist.branchOf.get("R1.e1") ?? -1;
    const spread = (of: typeof netlist) =>
      deviation(
        vehicleSamples(of, 800, 3)
          .slice(1)
          .map(({ values }) => Math.log(values.ohms[at] as number)),
      );
    expect(spread(guessed) / spread(netlist)).toBeCloseTo(2.5, 1);
  });
});
