// Faults solved on the healthy network against the same faults factorised anew.
import { describe, expect, test } from "@jest/globals";
import { catalogue } from "../diagnose/catalogue";
import { vehicleDraws } from "../predict/vehicleDraw";
import { shippedIds, shippedNetlist } from "../testing/shippedCircuit";
import { PointSolver } from "./pointSolver";
import { setupState } from "./setup";

describe.each(shippedIds)("on the healthy network of %s", (id) => {
  const netlist = shippedNetlist(id);
  const solver = new PointSolver(netlist);
  const fresh = new PointSolver(netlist);
  const entries = catalogue(netlist);
  const top = netlist.circuit.settings.at(-1) ?? "off";
  const drawn = vehicleDraws(netlist, 3, 7);

  test.each([
    ["in the middle setting", { key: "run", setting: netlist.circuit.settings.at(2) ?? top }],
    ["on top, engine running", { key: "run", engine: true, setting: top }],
    ["key out", { key: "off", setting: top }],
  ] as const)("%s every fault but opens and shorts is the point a fresh solve finds", (_, setup) => {
    const state = setupState(netlist, setup);
    for (const { values } of drawn) {
      const network = solver.healthyNetwork(values, state);
      let solvedOn = 0;
      for (const { id: fault, fault: placed } of entries) {
        const quick = solver.solveOn(network, placed.changes);
        if (!quick) continue;
        solvedOn += 1;
        const exact = fresh.solve(values, state, placed.changes);
        if (exact.buzzing.includes(1)) continue;
        const worst = (one: Float64Array, other: Float64Array): number =>
          one.reduce((most, value, i) => Math.max(most, Math.abs(value - (other[i] as number))), 0);
        expect({
          fault,
          floating: [...quick.floating],
          volts: worst(quick.volts, exact.volts) < 1e-5,
          amps: worst(quick.amps, exact.amps) < 1e-4,
          speed: worst(quick.speeds, exact.speeds) < 1e-3,
        }).toEqual({ fault, floating: [...exact.floating], volts: true, amps: true, speed: true });
      }
      expect(solvedOn).toBeGreaterThan(0.5 * entries.length);
    }
  });

  test("what opens or joins the network itself is left to a fresh solve", () => {
    const state = setupState(netlist, { key: "run", setting: top });
    const network = solver.healthyNetwork((drawn[0] as (typeof drawn)[number]).values, state);
    const wire = netlist.circuit.wires[0]?.id ?? "";
    const branch = netlist.branchOf.get(wire) ?? -1;
    expect(solver.solveOn(network, [{ type: "series", branch, ohms: Number.POSITIVE_INFINITY }])).toBeNull();
    expect(solver.solveOn(network, [{ type: "bridge", a: 1, b: -1, ohms: 0.01 }])).toBeNull();
    expect(solver.solveOn(network, [{ type: "battery", volts: 9 }])).toBeNull();
    const two = ["from", "to"].map((end) => ({
      type: "series" as const,
      branch: netlist.branchOf.get(`${wire}/${end}`) ?? -1,
      ohms: 1,
    }));
    expect(solver.solveOn(network, two)).toBeNull();
  });

  test("begun where the vehicle before stood, a solve finds the same", () => {
    const state = setupState(netlist, { key: "run", setting: top });
    const networks = drawn.map(({ values }) => solver.healthyNetwork(values, state));
    for (const { fault } of entries.filter((_, i) => i % 7 === 0)) {
      let last: (typeof networks)[number] | null = null;
      for (const network of networks) {
        solver.standLike(network, last);
        last = network;
        const quick = solver.solveOn(network, fault.changes, true);
        if (!quick) break;
        const exact = fresh.solve(network.values, state, fault.changes);
        if (exact.buzzing.includes(1)) break;
        for (const [node, volts] of exact.volts.entries())
          expect(Math.abs((quick.volts[node] ?? 0) - volts)).toBeLessThan(0.01);
        expect([...quick.on]).toEqual([...exact.on]);
      }
    }
  });
});
