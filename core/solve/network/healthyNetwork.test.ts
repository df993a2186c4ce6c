// Faults solved on the healthy network against the same faults factorised from scratch.
import { describe, expect, test } from "@jest/globals";
import { catalogue } from "../../fault/catalogue";
import { vehicleSamples } from "../../predict/tables/vehicleSample";
import { shippedIds, shippedNetlist } from "../../testing/shippedCircuit";
import { setupState } from "../netlist/setup";
import { PointSolver } from "../pointSolver";

describe.each(shippedIds)("on the healthy network of %s", (id) => {
  const netlist = shippedNetlist(id);
  const solver = new PointSolver(netlist);
  const fresh = new PointSolver(netlist);
  const entries = catalogue(netlist);
  const top = netlist.circuit.settings.at(-1) ?? "off";
  const drawn = vehicleSamples(netlist, 3, 7);

  test.each([
    ["in the middle setting", { key: "run", setting: netlist.circuit.settings.at(2) ?? top }],
    ["on top, engine running", { key: "run", engine: true, setting: top }],
    ["key out", { key: "off", setting: top }],
  ] as const)("%s every fault gives the operating point of a fresh solve", (_, setup) => {
    const state = setupState(netlist, setup);
    for (const { values } of drawn) {
      const network = solver.healthyNetwork(values, state);
      let solvedOn = 0;
      // Mismatches are collected and asserted once, because an assertion costs more than the solve it checks.
      const apart: string[] = [];
      for (const { id: fault, fault: placed } of entries) {
        const quick = solver.solveOn(network, placed.changes);
        if (!quick) continue;
        solvedOn += 1;
        const exact = fresh.solve(values, state, placed.changes);
        if (exact.buzzing.includes(1)) continue;
        const worst = (one: Float64Array, other: Float64Array): number =>
          one.reduce((most, value, i) => Math.max(most, Math.abs(value - (other[i] as number))), 0);
        const same =
          quick.floating.every((one, node) => one === exact.floating[node]) &&
          worst(quick.volts, exact.volts) < 1e-5 &&
          worst(quick.amps, exact.amps) < 1e-4 &&
          worst(quick.speeds, exact.speeds) < 1e-3;
        if (!same) apart.push(fault);
      }
      expect(apart).toEqual([]);
      expect(solvedOn).toBeGreaterThan(0.95 * entries.length);
    }
  });

  test.each([
    ["on top", { key: "run", setting: top }, false],
    ["dead, battery off", { key: "off", setting: top }, true],
  ] as const)(
    "%s the ohms behind every node and between two are those of a fresh solve",
    (_, setup, dead) => {
      const state = setupState(netlist, setup, dead);
      const { values } = drawn[1] as (typeof drawn)[number];
      const network = solver.healthyNetwork(values, state);
      const [quick, exact] = [0, 1].map(() => new Float64Array(netlist.nodeNames.length)) as [
        Float64Array,
        Float64Array,
      ];
      const last = netlist.nodeNames.length - 1;
      const apart: string[] = [];
      for (const { id: fault, fault: placed } of entries.filter((_, i) => i % 4 === 0)) {
        if (!solver.solveOn(network, placed.changes)) continue;
        if (fresh.solve(values, state, placed.changes).buzzing.includes(1)) continue;
        solver.ohmsBehind(quick);
        fresh.ohmsBehind(exact);
        for (const [node, ohms] of exact.entries()) {
          const seen = quick[node] ?? Number.NaN;
          const same = Number.isFinite(ohms) ? Math.abs(seen - ohms) < 1e-6 * (1 + ohms) : seen === ohms;
          if (!same) apart.push(`${fault} at node ${node}`);
        }
        const [one, other] = [solver.ohmsBetween(2, last), fresh.ohmsBetween(2, last)];
        expect(Number.isFinite(one)).toBe(Number.isFinite(other));
        if (Number.isFinite(other)) expect(Math.abs(one - other)).toBeLessThan(1e-6 * (1 + other));
      }
      expect(apart).toEqual([]);
    },
  );

  test("another battery, and too many changes at once, are left to a fresh solve", () => {
    const state = setupState(netlist, { key: "run", setting: top });
    const network = solver.healthyNetwork((drawn[0] as (typeof drawn)[number]).values, state);
    const ends = netlist.circuit.wires.slice(0, 3).map(({ id: wire }) => netlist.branchOf.get(wire) ?? -1);
    const series = (branch: number, ohms: number) => ({ type: "series", branch, ohms }) as const;
    const [one = -1, other = -1] = ends;
    expect(solver.solveOn(network, [{ type: "battery", volts: 9 }])).toBeNull();
    expect(solver.solveOn(network, [series(one, 1), series(one, 2)])).toBeNull();
    expect(
      solver.solveOn(network, [
        series(one, Number.POSITIVE_INFINITY),
        series(other, Number.POSITIVE_INFINITY),
      ]),
    ).toBeNull();
    expect(
      solver.solveOn(
        network,
        ends.map((branch) => series(branch, 1)),
      ),
    ).toBeNull();
  });

  test("started from the previous vehicle's states, a solve finds the same", () => {
    const state = setupState(netlist, { key: "run", setting: top });
    const networks = drawn.map(({ values }) => solver.healthyNetwork(values, state));
    for (const { fault } of entries.filter((_, i) => i % 5 === 0)) {
      let last: (typeof networks)[number] | null = null;
      for (const network of networks) {
        solver.standLike(network, last);
        const quick = solver.solveOn(network, fault.changes, last ? "rough-as-before" : "rough");
        last = network;
        if (!quick) break;
        const exact = fresh.solve(network.values, state, fault.changes);
        if (exact.buzzing.includes(1)) break;
        const worst = exact.volts.reduce(
          (most, volts, node) => Math.max(most, Math.abs((quick.volts[node] ?? Number.NaN) - volts)),
          0,
        );
        expect(worst).toBeLessThan(0.01);
        expect([...quick.on]).toEqual([...exact.on]);
      }
    }
  });
});
