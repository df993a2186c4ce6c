import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Circuit } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import { catalogue } from "../fault/catalogue";
import { faultFromId } from "../fault/fault";
import { netlistOf, shippedIds, shippedNetlist } from "../testing/shippedCircuit";
import type { Netlist } from "./netlist/netlist";
import { setupState } from "./netlist/setup";
import { nominalValues } from "./netlist/values";
import { operatingPoint } from "./operatingPoint";
import { PointSolver } from "./pointSolver";

const whimbrel = shippedNetlist("whimbrel-four-speed");

function underFault(netlist: Netlist, fault: string, setting = "4") {
  const placed = faultFromId(netlist, fault);
  if (!placed.ok) throw new Error(fault);
  return operatingPoint(netlist, { key: "run", setting }, placed.value.changes);
}

/** A circuit of this test, parsed like any file. */
function circuitOf(part: Partial<Circuit>): Circuit {
  const parsed = parseCircuit({
    format: "airway-circuit",
    version: 1,
    id: "bench",
    title: "bench",
    settings: ["off"],
    parts: [],
    connectors: [],
    wires: [],
    places: [],
    ...part,
  });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.problems));
  return parsed.value;
}

const battery = { id: "G1", kind: "battery", restVolts: 12, chargingVolts: 14, ohms: 0 } as const;
const wire = (id: string, from: string, to: string) =>
  ({ id, from, to, colour: "RD", mm2: 2.5, metres: 1, fromOhms: 0, toOhms: 0 }) as const;

describe("a divider against the closed form", () => {
  // Ohm's law by hand: 12 V over 8 Ω and 4 Ω, with copper of 1.7241e-8 × 1 / 2.5e-6 Ω in each wire.
  test("volts and amps", () => {
    const netlist = netlistOf(
      circuitOf({
        parts: [
          battery,
          {
            id: "R1",
            kind: "resistor",
            elements: [
              { id: "a", from: "T1", to: "T2", ohms: 8 },
              { id: "b", from: "T2", to: "T3", ohms: 4 },
            ],
          },
          { id: "E1", kind: "ground", ohms: 0 },
        ],
        wires: [wire("W1", "G1.+", "R1.T1"), wire("W2", "R1.T3", "E1.31")],
      }),
    );
    const point = operatingPoint(netlist, {});
    const amps = 12 / (12 + 2 * (1.7241e-8 / 2.5e-6));
    expect(point.amps["R1.a"]).toBeCloseTo(amps, 4);
    expect(point.volts["R1.T1"]).toBeCloseTo(12 - amps * (1.7241e-8 / 2.5e-6), 4);
    expect(point.watts["R1.b"]).toBeCloseTo(amps * amps * 4, 3);
  });
});

describe("states that break careless solvers", () => {
  test("an open wire's far end floats and is named, and nothing is NaN", () => {
    const point = underFault(whimbrel, "W9:open");
    expect(point.rpm.M1).toBe(0);
    expect(point.volts["X3:1"]).not.toBeNull();
    expect(point.volts["W9/to"]).toBeCloseTo(0, 6);
    const unplugged = operatingPoint(whimbrel, { key: "run", setting: "2", unplugged: ["X5"] });
    expect(unplugged.floating).toContain("R1.T2");
    expect(unplugged.volts["R1.T2"]).toBeNull();
    expect(unplugged.volts["X5:4"]).toBeCloseTo(12.6, 1);
  });

  test("a locked motor draws its stall current behind the circuit's ohms", () => {
    const point = underFault(whimbrel, "M1:seized");
    const stallOhms = 13.5 / 70;
    const drop = (point.volts["M1.+"] ?? 0) - (point.volts["M1.-"] ?? 0);
    expect(point.rpm.M1).toBe(0);
    expect(point.amps.M1).toBeCloseTo(drop / stallOhms, 6);
  });

  test("a relay that feeds its own coil through its normally closed contact buzzes, and the values are means", () => {
    const netlist = netlistOf(
      circuitOf({
        parts: [
          battery,
          { id: "K1", kind: "relay", coilOhms: 80, pullInVolts: 7, contactOhms: 0.01 },
          { id: "E1", kind: "ground", ohms: 0 },
        ],
        wires: [wire("W1", "G1.+", "K1.30"), wire("W2", "K1.87a", "K1.86"), wire("W3", "K1.85", "E1.31")],
      }),
    );
    const point = operatingPoint(netlist, {});
    expect(point.buzzing).toEqual(["K1"]);
    expect(point.amps["K1.coil"]).toBeCloseTo(12 / 80 / 2, 3);
  });

  test("every fault in every setting gives finite numbers or a floating point", () => {
    const broken: string[] = [];
    for (const id of shippedIds) {
      const netlist = shippedNetlist(id);
      const solver = new PointSolver(netlist);
      const values = nominalValues(netlist);
      for (const { id: faultId, fault } of catalogue(netlist)) {
        for (const setting of netlist.circuit.settings) {
          const solved = solver.solve(values, setupState(netlist, { key: "run", setting }), fault.changes);
          if (!solved.volts.every(Number.isFinite) || !solved.amps.every(Number.isFinite))
            broken.push(`${id}, ${faultId}, ${setting}`);
        }
      }
    }
    expect(broken).toEqual([]);
  });
});

describe("laws", () => {
  test.each(shippedIds)("on %s: currents sum to zero at every node, whatever the fault", (id) => {
    const netlist = shippedNetlist(id);
    const faults = catalogue(netlist);
    const settings = netlist.circuit.settings;
    const solver = new PointSolver(netlist);
    fc.assert(
      fc.property(
        fc.nat({ max: faults.length - 1 }),
        fc.constantFrom(...settings),
        fc.boolean(),
        (index, setting, engine) => {
          const changes = faults[index]?.fault.changes ?? [];
          const solved = solver.solve(
            nominalValues(netlist),
            setupState(netlist, { key: "run", engine, setting }),
            changes,
          );
          if (solved.buzzing.includes(1)) return;
          const sums = new Float64Array(netlist.nodeNames.length);
          const bridges = changes.flatMap((change) => (change.type === "bridge" ? [change] : []));
          const at = (node: number): number => (node < 0 ? 0 : (solved.volts[node] ?? 0));
          const carry = (a: number, b: number, amps: number): void => {
            if (a >= 0) sums[a] = (sums[a] ?? 0) - amps;
            if (b >= 0) sums[b] = (sums[b] ?? 0) + amps;
          };
          for (const [i, { a, b }] of netlist.branches.entries()) carry(a, b, solved.amps[i] ?? 0);
          for (const [i, { freewheel }] of netlist.modules.entries())
            carry(freewheel.a, freewheel.b, solved.freewheel[i] ?? 0);
          for (const { a, b, ohms } of bridges) carry(a, b, (at(a) - at(b)) / ohms);
          const worst = Math.max(...sums.map(Math.abs));
          expect(worst).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 120, seed: 11 },
    );
  });

  test("healthy speeds increase strictly and the fuse carries its current", () => {
    for (const id of shippedIds) {
      const netlist = shippedNetlist(id);
      const speeds = netlist.circuit.settings.map(
        (setting) => operatingPoint(netlist, { key: "run", setting }).rpm.M1 ?? 0,
      );
      for (let i = 1; i < speeds.length; i++) expect(speeds[i]).toBeGreaterThan(speeds[i - 1] ?? 0);
      const top = netlist.circuit.settings.at(-1) ?? "";
      const { amps } = operatingPoint(netlist, { key: "run", engine: true, setting: top });
      for (const part of netlist.circuit.parts) {
        if (part.kind === "fuse") expect(Math.abs(amps[part.id] ?? 0)).toBeLessThan(part.amps);
      }
    }
  });

  test("the same vehicle solved after others gives the same numbers", () => {
    const before = underFault(whimbrel, "R1.link:open", "2");
    underFault(whimbrel, "W14:to-ground", "3");
    expect(underFault(whimbrel, "R1.link:open", "2")).toEqual(before);
  });
});
