import { type Parsed, refused } from "../../problem/problem";
import type { Change } from "../netlist/change";
import type { Branch, Netlist } from "../netlist/netlist";
import { type Setup, setupState } from "../netlist/setup";
import { nominalValues } from "../netlist/values";
import { PointSolver } from "../pointSolver";

/** What a voltage drop is measured across. */
export type DropOver = "joint" | "wire" | "switch" | "side";

/** Largest acceptable drops in volts (common practice, no source). */
export const dropLimits: Readonly<Record<DropOver, number>> = {
  joint: 0.1,
  wire: 0.2,
  switch: 0.3,
  side: 0.5,
};

/** A voltage drop measured under load, with its limit and its effect. */
export interface JointDrop {
  readonly over: DropOver;
  readonly volts: number;
  readonly limitVolts: number;
  /** Volts a healthy circuit drops there in this set-up. */
  readonly healthyVolts: number;
  /** Ohms that must have been added to cause this drop; 0 if the drop is healthy. */
  readonly addedOhms: number;
  /** Watts turned into heat at the joint. */
  readonly watts: number;
  /** Airflow of each motor as a share of healthy, by motor id. */
  readonly airflow: Readonly<Record<string, number>>;
}

const mostOhms = 50;
const steps = 50;
/** A branch counts as carrying current above this many amps. */
const flowing = 0.05;

/**
 * Judges a voltage drop measured between two points: the kind of joint, whether the drop is over its limit, and how
 * much air it costs. The points must lie along contacts, wires and fuses in series.
 * @param netlist built with each wire's ends as branches of their own
 */
export function jointDrop(
  netlist: Netlist,
  setup: Setup,
  red: string,
  black: string,
  volts: number,
): Parsed<JointDrop> {
  const [from, to] = [red, black].map((name) => netlist.nodeOf.get(name));
  if (from === undefined || to === undefined)
    return refused([
      {
        code: "no-such-thing",
        path: from === undefined ? "red" : "black",
        message: "is no point of this circuit",
      },
    ]);
  const solver = new PointSolver(netlist);
  const values = nominalValues(netlist);
  const state = setupState(netlist, setup);
  const healthy = solver.solve(values, state, []);
  const healthyAmps = healthy.amps.slice();
  const healthySpeeds = [...healthy.speeds];
  const at = (solved: { readonly volts: Float64Array }, node: number): number =>
    node < 0 ? 0 : (solved.volts[node] as number);
  const healthyVolts = at(healthy, from) - at(healthy, to);
  const way = pathBetween(netlist, from, to, (branch) => Math.abs(healthyAmps[branch] as number) > flowing);
  if (!way)
    return refused([
      {
        code: "contradiction",
        path: "red",
        message: "nothing but wires and contacts that carry current must lie between the points",
      },
    ]);
  const over = kindOf(
    way.map((branch) => netlist.branches[branch] as Branch),
    netlist,
  );
  const widest = way.reduce((best, branch) =>
    Math.abs(healthyAmps[branch] as number) > Math.abs(healthyAmps[best] as number) ? branch : best,
  );
  const withOhms = (ohms: number) => {
    const changes: Change[] = [{ type: "series", branch: widest, ohms }];
    return solver.solve(values, state, changes);
  };
  const dropAt = (ohms: number): number => {
    const solved = withOhms(ohms);
    return Math.abs(at(solved, from) - at(solved, to));
  };
  const wanted = Math.abs(volts);
  let [low, high] = [0, mostOhms];
  if (wanted > Math.abs(healthyVolts))
    for (let i = 0; i < steps; i++) {
      const middle = (low + high) / 2;
      if (dropAt(middle) < wanted) low = middle;
      else high = middle;
    }
  const addedOhms = low;
  const solved = withOhms(addedOhms);
  const amps = solved.amps[widest] as number;
  return {
    ok: true,
    value: {
      over,
      volts,
      limitVolts: dropLimits[over],
      healthyVolts: Math.abs(healthyVolts),
      addedOhms,
      watts: wanted * Math.abs(amps),
      airflow: Object.fromEntries(
        netlist.motors.map(({ part }, motor) => {
          const own = healthySpeeds[motor] ?? 0;
          return [part.id, own > 0 ? (solved.speeds[motor] as number) / own : 1];
        }),
      ),
    },
  };
}

/** The shortest run of contacts, wires and fuses in series between two nodes. */
function pathBetween(
  netlist: Netlist,
  from: number,
  to: number,
  carries: (branch: number) => boolean,
): number[] | null {
  const via = new Map<number, { branch: number; node: number } | null>([[from, null]]);
  const queue = [from];
  for (const node of queue) {
    if (node === to) break;
    netlist.branches.forEach((branch, index) => {
      if (!["contact", "wire", "fuse"].includes(branch.spread) || !carries(index)) return;
      const next = branch.a === node ? branch.b : branch.b === node ? branch.a : null;
      if (next === null || via.has(next)) return;
      via.set(next, { branch: index, node });
      queue.push(next);
    });
  }
  if (!via.has(to) || from === to) return null;
  const way: number[] = [];
  for (let step = via.get(to); step; step = via.get(step.node)) way.push(step.branch);
  return way;
}

function kindOf(way: readonly Branch[], netlist: Netlist): DropOver {
  const switches = new Set(
    netlist.circuit.parts.flatMap(({ id, kind }) =>
      ["selector", "ignition", "relay"].includes(kind) ? [id] : [],
    ),
  );
  const [only] = way;
  if (way.length === 1 && only)
    return switches.has(only.owner) ? "switch" : only.spread === "wire" ? "wire" : "joint";
  const owners = new Set(way.map(({ owner }) => owner));
  if (owners.size > 1 || !only) return "side";
  return way.some(({ spread }) => spread === "wire") ? "wire" : switches.has(only.owner) ? "switch" : "joint";
}
