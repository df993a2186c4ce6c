import { describe, expect, test } from "@jest/globals";
import { operatingPoint } from "../solve/operatingPoint";
import { shippedEngine } from "../testing/shippedCircuit";
import { catalogue } from "./catalogue";
import { faultFromId } from "./fault";

const { netlist } = shippedEngine("whimbrel-four-speed");

function rpm(setting: string, fault?: string): number {
  const placed = fault ? faultFromId(netlist, fault) : null;
  if (placed && !placed.ok) throw new Error(JSON.stringify(placed.problems));
  return operatingPoint(netlist, { key: "run", setting }, placed?.value.changes).rpm.M1 ?? 0;
}

describe("a knob that turns without its contacts", () => {
  test("gives every setting what the contacts stand at", () => {
    for (const [place, standsAt] of netlist.circuit.settings.entries())
      for (const setting of netlist.circuit.settings)
        expect(rpm(setting, `S2:knob-turns@${place + 1}`)).toBeCloseTo(rpm(standsAt), 6);
  });

  test.each(["S2:knob-turns", "S2:knob-turns@9", "R1:knob-turns@1"])("%s is refused", (id) =>
    expect(faultFromId(netlist, id).ok).toBe(false),
  );
});

describe("a socket", () => {
  test("adds its ohms where the wire ends, and belongs to the part that sits in it", () => {
    const socket = faultFromId(netlist, "F7/in:high@1.5");
    expect(socket).toMatchObject({ ok: true, value: { parts: ["F7"] } });
    expect(rpm("4", "F7/in:high@1.5")).toBeCloseTo(rpm("4", "W3/to:high@1.5"), 6);
    expect(rpm("4", "F7/in:high@1.5")).toBeLessThan(0.9 * rpm("4"));
  });

  test.each(["F7/side:high@1", "S2/C:high@1", "F7/in:high"])("%s is refused", (id) =>
    expect(faultFromId(netlist, id).ok).toBe(false),
  );
});

describe("a chafed wire", () => {
  test("touches the body at times, and only a wire behind the motor is suspected of it", () => {
    const chafed = faultFromId(netlist, "W12:chafed");
    const shorted = faultFromId(netlist, "W12:to-ground");
    if (!chafed.ok || !shorted.ok) throw new Error("not placed");
    expect(chafed.value.changes).toEqual(shorted.value.changes);
    expect(chafed.value.presentShare).toBe(0.5);
    const suspected = catalogue(netlist).flatMap(({ fault: { names, parts } }) =>
      names[0]?.mode === "chafed" ? parts : [],
    );
    expect(suspected).toContain("W12");
    // The feed wires would blow their fuse or pull the battery down.
    for (const wire of ["W1", "W3", "W4", "W9"]) expect(suspected).not.toContain(wire);
  });
});
