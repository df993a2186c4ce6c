import { describe, expect, test } from "@jest/globals";
import { faultFromId } from "../../fault/fault";
import { shippedNetlist } from "../../testing/shippedCircuit";
import { operatingPoint } from "../operatingPoint";
import { dropLimits, jointDrop } from "./jointDrop";

const netlist = shippedNetlist("whimbrel-four-speed");
const setup = { key: "run" as const, setting: "4", engine: true };

function measured(fault: string, red: string, black: string) {
  const parsed = faultFromId(netlist, fault);
  if (!parsed.ok) throw new Error(fault);
  const { volts, rpm } = operatingPoint(netlist, setup, parsed.value.changes);
  return { volts: (volts[red] ?? 0) - (volts[black] ?? 0), rpm: rpm.M1 ?? 0 };
}

const taken = (red: string, black: string, volts: number) => {
  const drop = jointDrop(netlist, setup, red, black, volts);
  if (!drop.ok) throw new Error(JSON.stringify(drop.problems));
  return drop.value;
};

describe("a drop under load", () => {
  test("over a pin gives the ohms that caused it and the air they cost", () => {
    const { volts, rpm } = measured("X3:1:high@0.08", "X3:1", "M1.+");
    const drop = taken("X3:1", "M1.+", volts);
    expect(drop).toMatchObject({ over: "joint", limitVolts: 0.1 });
    expect(drop.addedOhms).toBeCloseTo(0.08, 4);
    const healthy = operatingPoint(netlist, setup, []).rpm.M1 ?? 0;
    expect(drop.airflow.M1).toBeCloseTo(rpm / healthy, 4);
    // P = V I at the joint.
    expect(drop.watts).toBeGreaterThan(1);
  });

  test("a healthy drop adds nothing and costs nothing", () => {
    const { volts } = operatingPoint(netlist, setup, []);
    const healthy = (volts["X3:1"] ?? 0) - (volts["M1.+"] ?? 0);
    const drop = taken("X3:1", "M1.+", healthy);
    expect(drop.addedOhms).toBe(0);
    expect(drop.airflow.M1).toBeCloseTo(1, 9);
    expect(drop.healthyVolts).toBeLessThan(dropLimits.joint);
  });

  test("reversed leads give the same", () => {
    expect(taken("M1.+", "X3:1", -0.9).addedOhms).toBeCloseTo(taken("X3:1", "M1.+", 0.9).addedOhms, 9);
  });

  test("the kind of joint gives the limit (common practice, no source)", () => {
    const wire = netlist.circuit.wires.find(
      ({ id }) => Math.abs(operatingPoint(netlist, setup, []).amps[id] ?? 0) > 5,
    );
    expect(taken(`${wire?.id}/from`, `${wire?.id}/to`, 0.1).over).toBe("wire");
    expect(taken("M1.-", "G1.-", 0.6)).toMatchObject({ over: "side", limitVolts: 0.5 });
  });

  test("points with a load between them, or none at all, are refused", () => {
    expect(jointDrop(netlist, setup, "M1.+", "M1.-", 12).ok).toBe(false);
    expect(jointDrop(netlist, setup, "Q1.+", "M1.-", 12)).toMatchObject({
      ok: false,
      problems: [{ path: "red" }],
    });
  });
});
