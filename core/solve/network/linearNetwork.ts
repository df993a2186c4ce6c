import { LRUCache } from "lru-cache";
import type { Branch, Netlist } from "../netlist/netlist";
import { type Groups, groupsOf } from "./connectivity";
import { type Edge, factorise, type LdlPattern, ldlRoom, planLdl } from "./ldl";
import type { PortNetwork } from "./portNetwork";

/** A connection in addition to the netlist's own branches. */
export interface Bridge {
  readonly a: number;
  readonly b: number;
  readonly ohms: number;
}

/** Buffers of one network: its elimination plan, its factors, and its ports. */
export interface Plan {
  readonly pattern: LdlPattern;
  readonly values: Float64Array;
  readonly ports: PortNetwork;
}

/** Number of elimination plans kept for each netlist, by extra connections. */
const mostPlans = 400;

/**
 * The linear networks of a netlist: nodes joined by conducting branches, with ports for everything else. Each set of
 * extra connections keeps its own elimination plan.
 */
export class LinearNetworks {
  private readonly plans = new LRUCache<string, Plan>({ max: mostPlans });

  /**
   * @param isInside whether a branch is part of the network when it conducts; the others get ports
   * @param makePorts an empty set of ports on a pattern
   */
  constructor(
    private readonly netlist: Netlist,
    private readonly isInside: (branch: Branch) => boolean,
    private readonly makePorts: (pattern: LdlPattern) => PortNetwork,
  ) {}

  /** The plan of the network with these extra connections; the same buffers each time. */
  plan(bridges: readonly Bridge[]): Plan {
    const key = bridges.map(({ a, b }) => `${a},${b}`).join(";");
    const known = this.plans.get(key);
    if (known) return known;
    const none = { a: -1, b: -1 };
    const edges: Edge[] = this.netlist.branches.map((branch) => (this.isInside(branch) ? branch : none));
    const pattern = planLdl(this.netlist.nodeNames.length, [...edges, ...bridges]);
    const plan = { pattern, values: ldlRoom(pattern), ports: this.makePorts(pattern) };
    this.plans.set(key, plan);
    return plan;
  }

  /** New buffers on the same elimination plan. */
  ownPlan(bridges: readonly Bridge[]): Plan {
    const { pattern } = this.plan(bridges);
    return { pattern, values: ldlRoom(pattern), ports: this.makePorts(pattern) };
  }

  /**
   * Groups of nodes the network connects.
   * @param siemens by branch; 0 if the branch does not conduct or is not inside
   */
  groups(siemens: Float64Array, bridges: readonly Bridge[]): Groups {
    const ends: number[] = [];
    this.netlist.branches.forEach(({ a, b }, branch) => {
      if (siemens[branch] !== 0) ends.push(a, b);
    });
    for (const { a, b } of bridges) ends.push(a, b);
    return groupsOf(this.netlist.nodeNames.length, ends);
  }

  /**
   * Factorises a network.
   * @param siemens by branch; 0 if the branch does not conduct or is not inside
   * @param emfs volts of each branch's own source
   */
  factor(
    plan: Plan,
    siemens: Float64Array,
    bridges: readonly Bridge[],
    groups: Groups,
    emfs: Float64Array,
  ): void {
    const { values, pattern, ports } = plan;
    const { branches } = this.netlist;
    values.fill(0);
    const sources: { a: number; b: number; amps: number }[] = [];
    for (let i = 0; i < branches.length; i++) {
      const own = siemens[i] as number;
      if (own === 0) continue;
      const { a, b } = branches[i] as Branch;
      stamp(plan, i, a, b, own);
      if (emfs[i] !== 0) sources.push({ a, b, amps: (emfs[i] as number) * own });
    }
    for (let i = 0; i < bridges.length; i++) {
      const { a, b, ohms } = bridges[i] as Bridge;
      stamp(plan, branches.length + i, a, b, 1 / ohms);
    }
    for (const node of groups.pins) add(values, pattern.stepOf[node] as number, pinSiemens);
    factorise(pattern, values);
    ports.begin(values, groups, sources);
  }
}

function stamp({ pattern, values }: Plan, edge: number, a: number, b: number, siemens: number): void {
  if (a === b) return;
  if (a >= 0) add(values, pattern.stepOf[a] as number, siemens);
  if (b >= 0) add(values, pattern.stepOf[b] as number, siemens);
  const slot = pattern.edgeSlot[edge] as number;
  if (slot >= 0) add(values, slot, -siemens);
}

function add(values: Float64Array, slot: number, siemens: number): void {
  values[slot] = (values[slot] as number) + siemens;
}

/** Pins a group that is connected only by ports while its potential is unknown. */
const pinSiemens = 1;
