// Circuits that nobody would design: for any wiring the solver returns finite numbers or reports what floats, and the
// currents at every node sum to zero.
import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Circuit } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import { type Part, terminalsOf } from "../circuit/parts/index";
import { catalogue } from "../fault/catalogue";
import { netlistOf } from "../testing/shippedCircuit";
import { setupState } from "./netlist/setup";
import { nominalValues } from "./netlist/values";
import { PointSolver } from "./pointSolver";

const settings = ["off", "1", "2"];
const stock = (kinds: readonly number[]): Part[] =>
  kinds.map((kind, i): Part => {
    const id = `P${i}`;
    switch (kind % 9) {
      case 0:
        return { id, kind: "fuse", amps: 10 + i };
      case 1:
        return { id, kind: "relay", coilOhms: 80, pullInVolts: 7, contactOhms: 0.005 };
      case 2:
        return { id, kind: "motor", ratedVolts: 13, ratedAmps: 12 + i, stallAmps: 60 + i, ratedRpm: 3000 };
      case 3:
        return {
          id,
          kind: "resistor",
          elements: [
            { id: "a", from: "T1", to: "T2", ohms: 0.5 },
            { id: "l", from: "T2", to: "T3", thermalLink: true },
          ],
        };
      case 4:
        return { id, kind: "selector", common: "C", closes: { off: [], "1": ["L"], "2": ["L", "H"] } };
      case 5:
        return {
          id,
          kind: "module",
          side: i % 2 ? "low" : "high",
          drive: i % 3 ? "pwm" : "linear",
          commandVolts: [0.5, 4.5],
          onOhms: 0.01,
        };
      case 6:
        return { id, kind: "head", commands: { off: 0, "1": 2, "2": 5 }, outOhms: 200 };
      case 7:
        return { id, kind: "ignition", closes: { off: [], acc: ["a"], run: ["a", "b"] } };
      default:
        return { id, kind: "ground", ohms: 0.002 };
    }
  });

const anyCircuit = fc
  .record({
    kinds: fc.array(fc.nat(8), { minLength: 2, maxLength: 12 }),
    joins: fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 3, maxLength: 30 }),
  })
  .map(({ kinds, joins }): Circuit | null => {
    const parts: Part[] = [
      { id: "G1", kind: "battery", restVolts: 12.6, chargingVolts: 14.2, ohms: 0.01 },
      { id: "E1", kind: "ground", ohms: 0.002 },
      ...stock(kinds),
    ];
    const terminals = parts.flatMap((part) => terminalsOf(part).map((terminal) => `${part.id}.${terminal}`));
    const wires = joins.flatMap(([a, b], i) => {
      const [from = "", to = ""] = [terminals[a % terminals.length], terminals[b % terminals.length]];
      return from === to ? [] : [{ id: `W${i}`, from, to, colour: "RD", mm2: 1, metres: 0.5 }];
    });
    const parsed = parseCircuit({
      format: "airway-circuit",
      version: 1,
      id: "any",
      title: "any",
      settings,
      parts,
      connectors: [],
      wires,
      places: [],
    });
    return parsed.ok ? parsed.value : null;
  });

test("no circuit of up to sixty nodes gives NaN, hangs or breaks Kirchhoff's current law", () => {
  let solvedStates = 0;
  fc.assert(
    fc.property(anyCircuit, fc.nat(), (circuit, pick) => {
      if (!circuit) return;
      const netlist = netlistOf(circuit);
      const solver = new PointSolver(netlist);
      const faults = catalogue(netlist);
      const changes =
        faults.length > 0 && pick % 2 ? (faults[pick % faults.length]?.fault.changes ?? []) : [];
      for (const setting of settings) {
        const solved = solver.solve(
          nominalValues(netlist),
          setupState(netlist, { key: "run", setting }),
          changes,
        );
        solvedStates += 1;
        const finite =
          solved.volts.every(Number.isFinite) &&
          solved.amps.every(Number.isFinite) &&
          solved.ohms.every((ohms) => ohms > 0);
        expect(finite).toBe(true);
        if (solved.buzzing.includes(1)) continue;
        const sums = new Float64Array(netlist.nodeNames.length);
        const at = (node: number): number => (node < 0 ? 0 : (solved.volts[node] ?? 0));
        const carry = (a: number, b: number, amps: number): void => {
          if (a >= 0) sums[a] = (sums[a] ?? 0) - amps;
          if (b >= 0) sums[b] = (sums[b] ?? 0) + amps;
        };
        for (const [i, { a, b }] of netlist.branches.entries()) carry(a, b, solved.amps[i] ?? 0);
        for (const [i, { freewheel }] of netlist.modules.entries())
          carry(freewheel.a, freewheel.b, solved.freewheel[i] ?? 0);
        for (const change of changes)
          if (change.type === "bridge")
            carry(change.a, change.b, (at(change.a) - at(change.b)) / change.ohms);
        const largest = Math.max(1, ...solved.amps.map(Math.abs));
        const unbalanced = sums.filter(
          (sum, node) => solved.floating[node] === 0 && !(Math.abs(sum) / largest < 1e-6),
        );
        expect([...unbalanced]).toEqual([]);
      }
    }),
    { numRuns: 400, seed: 3 },
  );
  expect(solvedStates).toBeGreaterThan(900);
});

test("whatever fails in such a circuit, its healthy network with the fault gives the operating point of a fresh solve", () => {
  let compared = 0;
  fc.assert(
    fc.property(anyCircuit, fc.nat(), (circuit, pick) => {
      if (!circuit) return;
      const netlist = netlistOf(circuit);
      const [solver, fresh] = [new PointSolver(netlist), new PointSolver(netlist)];
      const faults = catalogue(netlist);
      if (faults.length === 0) return;
      const values = nominalValues(netlist);
      const state = setupState(netlist, { key: "run", setting: settings[pick % 3] ?? "off" });
      const network = solver.healthyNetwork(values, state);
      for (let at = pick % 5; at < faults.length; at += 5) {
        const { id = "", fault } = faults[at] ?? {};
        const quick = fault && solver.solveOn(network, fault.changes);
        if (!fault || !quick) continue;
        const exact = fresh.solve(values, state, fault.changes);
        const alike =
          quick.buzzing.every((one, relay) => one === exact.buzzing[relay]) &&
          quick.floating.every((one, node) => one === exact.floating[node]);
        const most = Math.max(
          ...quick.volts.map((volts, node) => Math.abs(volts - (exact.volts[node] ?? 0))),
        );
        expect({ id, alike, close: most < 1e-4 }).toEqual({ id, alike: true, close: true });
        compared += 1;
      }
    }),
    { numRuns: 150, seed: 8 },
  );
  expect(compared).toBeGreaterThan(1000);
});
