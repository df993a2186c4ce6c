// The solver against ngspice 45 (eecircuit-engine, WebAssembly). Motors there are behavioural sources whose speed is a
// node on which the torques balance: another solver and another formulation.
import { beforeAll, describe, expect, jest, test } from "@jest/globals";
import { Simulation } from "eecircuit-engine";
import { catalogue } from "../fault/catalogue";
import { faultFromId } from "../fault/fault";
import { spiceNetlist } from "../formats/spiceNetlist";
import { shippedIds, shippedNetlist } from "../testing/shippedCircuit";
import type { Change } from "./netlist/change";
import type { Netlist } from "./netlist/netlist";
import { type Setup, setupState } from "./netlist/setup";
import { nominalValues } from "./netlist/values";
import { PointSolver } from "./pointSolver";

const simulation = new Simulation();
let run = 0;

beforeAll(async () => {
  jest.spyOn(console, "error").mockImplementation(() => undefined);
  jest.spyOn(console, "log").mockImplementation(() => undefined);
  await simulation.start();
});

/** Node volts by spice node number; throws if ngspice reports an error. */
async function ngspiceVolts(text: string): Promise<Map<number, number>> {
  // A failed run may return the result of the previous one, so each run carries its own number as a voltage.
  run += 1;
  simulation.setNetList(text.replace(".options", `VRUN run 0 ${run}\n.options`));
  const result = await simulation.runSim();
  // ngspice may warn that one method of convergence failed before another succeeds.
  const errors = simulation
    .getError()
    .filter((line) => !/^Note:|^Warning:.*stepping failed|^\s*$/i.test(line));
  if (errors.length > 0) throw new Error(errors.join("\n"));
  const mark = result.data.find(({ name }) => /^v\(run\)$/i.test(name))?.values[0];
  // After stepping its conductances ngspice leaves the last digits of a source open.
  if (!(Math.abs(Number(mark) - run) < 1e-6)) throw new Error("ngspice gave another run's result");
  const volts = new Map<number, number>();
  for (const { name, values } of result.data) {
    const node = /^v\((\d+)\)$/i.exec(name);
    const [value] = values as number[];
    if (node && typeof value === "number") volts.set(Number(node[1]), value);
  }
  return volts;
}

interface Compared {
  readonly nodes: number;
  readonly worstVolts: number;
  /** Largest amount by which a branch current's difference exceeds a millionth of that current. */
  readonly worstAmps: number;
}

async function compare(
  netlist: Netlist,
  solver: PointSolver,
  setup: Setup,
  changes: readonly Change[],
): Promise<Compared | null> {
  const solved = solver.solve(nominalValues(netlist), setupState(netlist, setup), changes);
  if (solved.buzzing.includes(1)) return null;
  const { text, nodes } = spiceNetlist(netlist, setup, changes);
  const volts = await ngspiceVolts(text);
  let worstVolts = 0;
  for (const [node, number] of nodes) {
    const theirs = volts.get(number);
    if (theirs === undefined) throw new Error(`ngspice gave no volts for node ${number}`);
    worstVolts = Math.max(worstVolts, Math.abs((solved.volts[node] ?? 0) - theirs));
  }
  const theirVolts = (node: number): number => (node < 0 ? 0 : (volts.get(nodes.get(node) ?? -1) ?? 0));
  let worstAmps = 0;
  netlist.branches.forEach(({ a, b, spread, control }, index) => {
    const ours = solved.amps[index] ?? 0;
    if (ours === 0 || spread === "winding" || spread === "source") return;
    if (control?.by === "module" || control?.by === "head") return;
    const theirs = (theirVolts(a) - theirVolts(b)) / (solved.ohms[index] ?? 1);
    worstAmps = Math.max(worstAmps, Math.abs(ours - theirs) - 1e-6 * Math.abs(ours));
  });
  return { nodes: nodes.size, worstVolts, worstAmps };
}

/** A dozen faults spread over the catalogue, one of every kind first. */
function someFaults(netlist: Netlist, count: number): string[] {
  const all = catalogue(netlist);
  const kinds = new Map<string, string>();
  for (const { id, fault } of all) {
    const kind = fault.names.map(({ mode }) => mode).join("+");
    if (!kind.includes("loose") && !kinds.has(kind)) kinds.set(kind, id);
  }
  const step = Math.max(1, Math.floor(all.length / count));
  return [...new Set([...kinds.values(), ...all.filter((_, i) => i % step === 0).map(({ id }) => id)])];
}

describe.each(shippedIds)("ngspice on %s", (id) => {
  const netlist = shippedNetlist(id);
  const solver = new PointSolver(netlist);
  const setups: Setup[] = [
    ...netlist.circuit.settings.flatMap((setting) => [
      { key: "run" as const, setting },
      { key: "run" as const, engine: true, setting },
      { key: "acc" as const, setting },
      { key: "off" as const, setting },
    ]),
    ...netlist.motors.map(({ part }) => ({
      key: "run" as const,
      setting: netlist.circuit.settings.at(-1) ?? "off",
      lampFor: part.id,
    })),
  ];

  test("agrees to 1 mV and 1 mA or a millionth on the healthy circuit, for all keys and settings", async () => {
    for (const setup of setups) {
      const compared = await compare(netlist, solver, setup, []);
      const far = (compared?.worstVolts ?? 0) > 1e-3 || (compared?.worstAmps ?? 0) > 1e-3;
      expect({ setup, far }).toEqual({ setup, far: false });
      expect(compared?.nodes).toBeGreaterThan(5);
    }
  });

  test("agrees equally on every kind of fault and a dozen spread over the catalogue", async () => {
    let states = 0;
    for (const fault of someFaults(netlist, 12)) {
      const placed = faultFromId(netlist, fault);
      if (!placed.ok) throw new Error(fault);
      for (const setting of netlist.circuit.settings.slice(1)) {
        const compared = await compare(netlist, solver, { key: "run", setting }, placed.value.changes);
        if (!compared) continue;
        states += 1;
        expect({ fault, setting, far: compared.worstVolts > 1e-3 }).toEqual({ fault, setting, far: false });
        expect({ fault, setting, far: compared.worstAmps > 1e-3 }).toEqual({ fault, setting, far: false });
      }
    }
    expect(states).toBeGreaterThanOrEqual(12 * (netlist.circuit.settings.length - 1));
  });
});
