import { describe, expect, test } from "@jest/globals";
import { problemText } from "../../problem/problem";
import { shippedCircuit, shippedIds } from "../../testing/shippedCircuit";
import { copperOhms } from "../../units/copper";
import { buildNetlist } from "../buildNetlist";
import { isPort, type Netlist, reference } from "./netlist";

function netlist(id: string, lumpWires: boolean): Netlist {
  const built = buildNetlist(shippedCircuit(id), { lumpWires });
  if (!built.ok) throw new Error(built.problems.map(problemText).join("; "));
  return built.value;
}

describe.each(shippedIds)("the netlist of %s", (id) => {
  const exact = netlist(id, false);
  const lumped = netlist(id, true);

  test("has one branch for each pin and three for each wire, or one if wires are lumped", () => {
    const pins = exact.circuit.connectors.reduce((sum, { pins: own }) => sum + Object.keys(own).length, 0);
    const wires = exact.circuit.wires.length;
    expect(exact.branches.filter(({ id: own }) => own.endsWith("/from") || own.endsWith("/to"))).toHaveLength(
      2 * wires,
    );
    expect(exact.branches.length - lumped.branches.length).toBe(2 * wires);
    expect(exact.nodeNames.length - lumped.nodeNames.length).toBe(2 * wires);
    for (const built of [exact, lumped])
      expect(
        built.branches.filter(({ id: own }) =>
          built.circuit.connectors.some((plug) => own.startsWith(`${plug.id}:`)),
        ),
      ).toHaveLength(pins);
  });

  test("gives every point a node and every branch a number above zero", () => {
    for (const built of [exact, lumped]) {
      for (const name of built.points.names) expect(built.nodeOf.get(name)).toBeDefined();
      for (const { ohms, a, b } of built.branches) {
        expect(ohms).toBeGreaterThan(0);
        expect(Number.isFinite(ohms)).toBe(true);
        expect(a).not.toBe(b);
        expect(Math.min(a, b)).toBeGreaterThanOrEqual(reference);
        expect(Math.max(a, b)).toBeLessThan(built.nodeNames.length);
      }
      expect(new Set(built.branches.map(({ id: own }) => own)).size).toBe(built.branches.length);
    }
  });

  test("keeps a wire's whole resistance when its ends are folded in", () => {
    for (const wire of exact.circuit.wires) {
      const at = (built: Netlist, name: string) =>
        built.branches[built.branchOf.get(name) ?? -1]?.ohms ?? Number.NaN;
      expect(at(exact, wire.id)).toBeCloseTo(Math.max(1e-6, copperOhms(wire.metres, wire.mm2)), 12);
      const whole = at(exact, `${wire.id}/from`) + at(exact, wire.id) + at(exact, `${wire.id}/to`);
      expect(at(lumped, wire.id)).toBeCloseTo(whole, 9);
    }
  });

  test("makes what decides for itself a port, but not switches", () => {
    const owners = new Set(lumped.branches.filter(isPort).map(({ owner }) => owner));
    for (const { part } of [...lumped.motors, ...lumped.modules]) expect(owners).toContain(part.id);
    for (const { id: part, kind } of lumped.circuit.parts)
      if (kind === "selector" || kind === "fuse" || kind === "resistor") expect(owners).not.toContain(part);
    expect(lumped.devices).toHaveLength(lumped.relays.length + lumped.modules.length + lumped.heads.length);
  });

  test("puts the battery's negative at the reference", () => {
    expect(exact.nodeOf.get(`${exact.battery.id}.-`)).toBe(reference);
    expect(exact.branches[exact.battery.branch]?.owner).toBe(exact.battery.id);
  });
});
