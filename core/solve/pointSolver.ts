import { changedMotor, type MotorConstants } from "../motor/motorConstants";
import type { Change } from "./change";
import { type Groups, groupsOf } from "./connectivity";
import { DeviceStates } from "./deviceStates";
import { type Edge, factorise, inverseDiagonal, type LdlPattern, ldlRoom, planLdl, seenOhms } from "./ldl";
import { isPort, type Netlist } from "./netlist";
import { type LinearElement, type Load, PortNetwork } from "./portNetwork";
import type { SetupState } from "./setup";
import type { SolvedState } from "./solvedState";
import { loadLamp, ratedAmps } from "./tungstenLamp";
import type { Values } from "./values";

export type { SolvedState } from "./solvedState";

/** Each network with its own extra connections keeps its elimination plan. */
export interface Plan {
  readonly pattern: LdlPattern;
  readonly values: Float64Array;
  readonly ports: PortNetwork;
}

/** What the devices of a netlist are solved with: the same numbers for every state they try. */
export interface PointInputs {
  readonly values: Values;
  readonly setup: SetupState;
  readonly changes: readonly Change[];
  /** Ohms of every branch with the changes in; Infinity where open. */
  readonly ohms: Float64Array;
  /** 1 where a branch may conduct. */
  readonly usable: Uint8Array;
  /** What a changed branch of the network conducts beside its healthy self; null where none changed. */
  readonly changed: LinearElement | null;
}

/**
 * The healthy network of one vehicle in one set-up, factorised, with what its ports have shown so far: most
 * faults leave it as it is but for one branch, and are solved on it without factorising again.
 */
export interface HealthyNetwork {
  readonly values: Values;
  readonly setup: SetupState;
  readonly plan: Plan;
  readonly groups: Groups;
  readonly emf: number;
  readonly ohms: Float64Array;
  readonly usable: Uint8Array;
  readonly siemens: Float64Array;
  /** How its devices stand while it is healthy. */
  readonly on: Uint8Array;
  readonly duty: Float64Array;
}

/**
 * Operating points of one netlist by nodal analysis (Ho, Ruehli and Brennan 1975, without the
 * branch-current rows: every branch here has resistance). The linear network is factorised once; what
 * switches, turns or glows (contacts, motors, controls, panels, the load lamp) hangs on it as ports.
 */
export class PointSolver {
  private readonly plans = new Map<string, Plan>();
  private readonly size: number;
  private readonly ohms: Float64Array;
  private readonly usable: Uint8Array;
  private readonly siemens: Float64Array;
  private readonly scratch: Float64Array;
  private readonly portBranch: Uint8Array;
  private readonly devices: DeviceStates;
  private readonly fromNode: Int32Array;
  private readonly toNode: Int32Array;
  /** Port of each port branch, -1 for the others. */
  private readonly portOf: Int32Array;
  private motors: MotorConstants[] = [];
  private bridges: { a: number; b: number; ohms: number }[] = [];
  private lamp: Edge | null = null;
  private plan!: Plan;
  private groups!: Groups;
  /** The set-up and changes the groups were found for. */
  private groupsFor: { setup: SetupState; changes: readonly Change[] } | null = null;
  private readonly state: {
    -readonly [K in keyof SolvedState]: SolvedState[K];
  };

  constructor(private readonly netlist: Netlist) {
    this.size = netlist.nodeNames.length;
    const branches = netlist.branches.length;
    this.ohms = new Float64Array(branches);
    this.usable = new Uint8Array(branches);
    this.siemens = new Float64Array(branches);
    this.scratch = new Float64Array(this.size);
    this.fromNode = Int32Array.from(netlist.branches, ({ a }) => a);
    this.toNode = Int32Array.from(netlist.branches, ({ b }) => b);
    this.portBranch = Uint8Array.from(netlist.branches, (branch) => (isPort(branch) ? 1 : 0));
    this.devices = new DeviceStates(netlist);
    this.portOf = this.devices.portOfBranch;
    this.state = {
      volts: new Float64Array(this.size),
      amps: new Float64Array(branches),
      ohms: this.ohms,
      speeds: new Float64Array(netlist.motors.length),
      floating: new Uint8Array(this.size),
      buzzing: new Uint8Array(netlist.devices.length),
      on: this.devices.on,
      duty: this.devices.duty,
      freewheel: new Float64Array(netlist.modules.length),
      stages: this.devices.forms,
      lampAmps: 0,
    };
  }

  /**
   * Solves one state of one vehicle.
   * @param like true where the devices are likely to stand as in the state solved before
   */
  solve(values: Values, setup: SetupState, changes: readonly Change[], like = false): SolvedState {
    this.prepare(values, setup, changes);
    const emf = sourceVolts(values, setup, changes);
    this.factorBase(emf);
    return this.settle(values, setup, changes, null, emf, like);
  }

  /** Factorises the healthy network of a vehicle in a set-up, to be solved on with `solveOn`. */
  healthyNetwork(values: Values, setup: SetupState): HealthyNetwork {
    this.prepare(values, setup, []);
    const emf = sourceVolts(values, setup, []);
    const { pattern } = this.plan;
    const ports = new PortNetwork(pattern, this.devices.ports);
    this.devices.placePorts(ports);
    if (setup.lamp) ports.setEnds(this.devices.lampPort, setup.lamp);
    this.plan = { pattern, values: ldlRoom(pattern), ports };
    this.factorBase(emf);
    const { plan, groups } = this;
    const { on, duty } = this.settle(values, setup, [], null, emf, false);
    return {
      values,
      setup,
      plan,
      groups,
      emf,
      ohms: this.ohms.slice(),
      usable: this.usable.slice(),
      siemens: this.siemens.slice(),
      on: on.slice(),
      duty: duty.slice(),
    };
  }

  /**
   * Lets the next solve on a vehicle begin where its devices probably stand.
   * @param last the vehicle the same changes were solved on before: its devices' states, and how far its duties
   * lay from healthy, are taken over; null for the healthy vehicle's own
   */
  standLike(network: HealthyNetwork, last: HealthyNetwork | null): void {
    const { on, duty } = this.devices;
    if (!last) on.set(network.on);
    for (let module = 0; module < duty.length; module++) {
      const shift = last ? (duty[module] as number) - (last.duty[module] as number) : 0;
      duty[module] = Math.min(1, Math.max(0, (network.duty[module] as number) + shift));
    }
  }

  /**
   * Solves changes on a healthy network factorised before: a branch with more ohms is its healthy self with a
   * negative resistance beside it, and what switches or turns hangs on ports as ever.
   * @returns null where the changes open or join the network itself: `solve` those
   */
  solveOn(network: HealthyNetwork, changes: readonly Change[], like = false): SolvedState | null {
    const series = this.seriesOnNetwork(network, changes);
    if (series === "another") return null;
    const { values, setup, emf } = network;
    this.plan = network.plan;
    this.groups = network.groups;
    this.groupsFor = null;
    this.lamp = setup.lamp;
    this.bridges = [];
    this.ohms.set(network.ohms);
    this.usable.set(network.usable);
    this.siemens.set(network.siemens);
    this.motors = values.motors.slice();
    for (const change of changes) if (change.type === "motor") this.changeMotor(change);
    this.changePortBranches(values, setup, changes);
    return this.settle(values, setup, changes, series && this.hang(network, series), emf, like);
  }

  /** The one change that adds ohms to the network itself; "another" where that is not all. */
  private seriesOnNetwork(
    network: HealthyNetwork,
    changes: readonly Change[],
  ): { branch: number; ohms: number } | null | "another" {
    let found: { branch: number; ohms: number } | null = null;
    for (const change of changes) {
      if (change.type === "bridge" || change.type === "battery") return "another";
      if (change.type !== "series" || this.portBranch[change.branch] === 1) continue;
      const healthy = network.siemens[change.branch] as number;
      if (healthy === 0) continue;
      const opens = change.ohms === Number.POSITIVE_INFINITY;
      if (opens || found || healthy > mostSiemens || change.branch === this.netlist.battery.branch)
        return "another";
      found = change;
    }
    return found;
  }

  /** Hangs the difference a series resistance makes beside its branch, and makes the branch's own what it is. */
  private hang({ plan }: HealthyNetwork, { branch, ohms }: { branch: number; ohms: number }): LinearElement {
    const healthy = 1 / (this.siemens[branch] as number);
    plan.ports.movePort(this.devices.changePort, {
      a: this.fromNode[branch] as number,
      b: this.toNode[branch] as number,
    });
    this.ohms[branch] = healthy + ohms;
    this.siemens[branch] = 1 / (healthy + ohms);
    const taps = this.devices.tapsOf(this.devices.changePort);
    return { carries: taps, senses: taps, ohms: (-healthy * (healthy + ohms)) / ohms, emfVolts: 0 };
  }

  /** Ohms of what hangs on ports: a contact or stage with a resistance in series, a motor's winding. */
  private changePortBranches(values: Values, setup: SetupState, changes: readonly Change[]): void {
    const { ohms, usable, netlist } = this;
    for (const { branch } of netlist.motors) ohms[branch] = values.ohms[branch] as number;
    for (const change of changes) {
      if (change.type !== "series" || this.portBranch[change.branch] === 0) continue;
      ohms[change.branch] = (ohms[change.branch] as number) + change.ohms;
      if (change.ohms === Number.POSITIVE_INFINITY || setup.closed[change.branch] === 0)
        usable[change.branch] = 0;
    }
    this.windMotors(values);
  }

  private settle(
    values: Values,
    setup: SetupState,
    changes: readonly Change[],
    changed: LinearElement | null,
    emf: number,
    like: boolean,
  ): SolvedState {
    const { ohms, usable, plan, groups, state } = this;
    const loads = this.loads();
    const inputs = { values, setup, changes, ohms, usable, changed };
    const settled = like && this.devices.settleAsBefore(inputs, plan.ports, loads, groups, state.speeds);
    const buzz = settled ? null : this.devices.settle(inputs, plan.ports, loads, groups, state.speeds, like);
    state.buzzing.fill(0);
    if (buzz) this.averageBuzz(buzz, emf);
    else this.readState(emf);
    return state;
  }

  /** Ohms between two nodes of the state just solved, motors at their winding; Infinity if apart. */
  ohmsBetween(a: number, b: number): number {
    if (a === b) return 0;
    if (!this.joined(a, b)) return Number.POSITIVE_INFINITY;
    const { pattern, values, ports } = this.plan;
    const bare = seenOhms(pattern, values, { a, b }, this.scratch);
    const relief = ports.relief(this.devices.elements(), this.devices.sets(this.groups));
    return Math.max(0, bare - relief({ a, b }));
  }

  /** Ohms from every node to the reference in the state just solved, motors at their winding. */
  ohmsBehind(out: Float64Array): void {
    const { pattern, values, ports } = this.plan;
    const inverse = ldlRoom(pattern);
    inverseDiagonal(pattern, values, inverse);
    const relief = ports.relief(this.devices.elements(), this.devices.sets(this.groups));
    for (let node = 0; node < this.size; node++) {
      const bare = inverse[pattern.stepOf[node] as number] as number;
      const floats = this.state.floating[node] === 1;
      out[node] = floats ? Number.POSITIVE_INFINITY : Math.max(0, bare - relief({ a: node, b: -1 }));
    }
  }

  /** True when both nodes hang together in the state just solved. */
  private joined(a: number, b: number): boolean {
    const sets = this.devices.sets(this.groups);
    const of = (node: number): number => (node < 0 ? 0 : (this.groups.of[node] as number));
    return sets[of(a)] === sets[of(b)];
  }

  private prepare(values: Values, setup: SetupState, changes: readonly Change[]): void {
    const { ohms, usable } = this;
    this.bridges = setup.jumpers.map(({ a, b }) => ({ a, b, ohms: jumperOhms }));
    this.motors = values.motors.slice();
    ohms.set(values.ohms);
    for (const change of changes) {
      if (change.type === "series") ohms[change.branch] = (ohms[change.branch] as number) + change.ohms;
      else if (change.type === "bridge") this.bridges.push(change);
      else if (change.type === "motor") this.changeMotor(change);
    }
    this.windMotors(values);
    for (let i = 0; i < ohms.length; i++) {
      const open = setup.closed[i] === 0 || ohms[i] === Number.POSITIVE_INFINITY;
      usable[i] = open ? 0 : 1;
      this.siemens[i] = open || this.portBranch[i] === 1 ? 0 : 1 / (ohms[i] as number);
    }
    this.lamp = setup.lamp;
    this.plan = this.planFor();
    if (this.groupsFor?.setup !== setup || this.groupsFor.changes !== changes) {
      this.groups = this.conductingGroups();
      this.groupsFor = { setup, changes };
    }
  }

  /** Gives each motor's branch the ohms of its winding, with what was added in series. */
  private windMotors(values: Values): void {
    const { ohms, netlist } = this;
    for (let motor = 0; motor < netlist.motors.length; motor++) {
      const branch = netlist.motors[motor]?.branch as number;
      const own = this.motors[motor] as MotorConstants;
      const extra = (ohms[branch] as number) - (values.ohms[branch] as number);
      ohms[branch] = own.ohms + extra;
      if (extra > 0) this.motors[motor] = { ...own, ohms: own.ohms + extra };
    }
  }

  private changeMotor({ motor, change }: Extract<Change, { type: "motor" }>): void {
    const rated = this.netlist.motors[motor];
    const own = this.motors[motor];
    if (rated && own) this.motors[motor] = changedMotor(own, rated.part, change);
  }

  private planFor(): Plan {
    const key = this.bridges.map(({ a, b }) => `${a},${b}`).join(";");
    const known = this.plans.get(key);
    const plan = known ?? this.makePlan(key);
    if (this.lamp) plan.ports.setEnds(this.devices.lampPort, this.lamp);
    return plan;
  }

  private makePlan(key: string): Plan {
    const none = { a: -1, b: -1 };
    const edges: Edge[] = this.netlist.branches.map((branch) => (isPort(branch) ? none : branch));
    const pattern = planLdl(this.size, [...edges, ...this.bridges]);
    const ports = new PortNetwork(pattern, this.devices.ports);
    this.devices.placePorts(ports);
    const plan = { pattern, values: ldlRoom(pattern), ports };
    this.plans.set(key, plan);
    if (this.plans.size > mostPlans) this.plans.delete(this.plans.keys().next().value as string);
    return plan;
  }

  /** Groups of the linear network, ports left out. */
  private conductingGroups(): Groups {
    const ends: number[] = [];
    for (let i = 0; i < this.fromNode.length; i++) {
      if (this.siemens[i] !== 0) ends.push(this.fromNode[i] as number, this.toNode[i] as number);
    }
    for (const { a, b } of this.bridges) ends.push(a, b);
    return groupsOf(this.size, ends);
  }

  private factorBase(emf: number): void {
    const { plan, groups, siemens } = this;
    const { values, pattern } = plan;
    values.fill(0);
    const count = siemens.length;
    for (let i = 0; i < count; i++) {
      const own = siemens[i] as number;
      if (own !== 0) this.stamp(i, this.fromNode[i] as number, this.toNode[i] as number, own);
    }
    for (let i = 0; i < this.bridges.length; i++) {
      const bridge = this.bridges[i] as { a: number; b: number; ohms: number };
      this.stamp(count + i, bridge.a, bridge.b, 1 / bridge.ohms);
    }
    for (const node of groups.pins) this.add(pattern.stepOf[node] as number, pinSiemens);
    factorise(pattern, values);
    const { positive, branch } = this.netlist.battery;
    plan.ports.begin(values, groups, { node: positive, amps: emf * (siemens[branch] as number) });
  }

  private stamp(edge: number, a: number, b: number, siemens: number): void {
    if (a === b) return;
    const { pattern } = this.plan;
    if (a >= 0) this.add(pattern.stepOf[a] as number, siemens);
    if (b >= 0) this.add(pattern.stepOf[b] as number, siemens);
    const slot = pattern.edgeSlot[edge] as number;
    if (slot >= 0) this.add(slot, -siemens);
  }

  private add(slot: number, siemens: number): void {
    this.plan.values[slot] = (this.plan.values[slot] as number) + siemens;
  }

  /** Motors whose winding is whole, and the lamp. */
  private loads(): Load[] {
    const found: Load[] = [];
    const load = (port: number, ohms: number, motor: Load["motor"]): Load => {
      const taps = this.devices.tapsOf(port);
      return { element: { carries: taps, senses: taps, ohms, emfVolts: 0 }, motor };
    };
    for (let index = 0; index < this.netlist.motors.length; index++) {
      const branch = this.netlist.motors[index]?.branch as number;
      if (this.usable[branch] === 0) continue;
      const constants = this.motors[index] as MotorConstants;
      found.push(load(this.portOf[branch] as number, constants.ohms, { constants, index }));
    }
    if (this.lamp) found.push(load(this.devices.lampPort, loadLamp.ratedVolts / ratedAmps(loadLamp), null));
    return found;
  }

  private readState(emf: number): void {
    const { netlist, plan, state } = this;
    this.devices.markFloating(this.groups, state.floating);
    plan.ports.readVolts(state.volts);
    for (let node = 0; node < this.size; node++) if (state.floating[node] === 1) state.volts[node] = 0;
    for (let i = 0; i < this.siemens.length; i++) {
      const port = this.portOf[i] as number;
      state.amps[i] =
        port >= 0
          ? (plan.ports.amps[port] as number)
          : (this.siemens[i] as number) *
            (this.voltsAt(this.fromNode[i] as number) - this.voltsAt(this.toNode[i] as number));
    }
    const { branch } = netlist.battery;
    state.amps[branch] = (state.amps[branch] as number) - emf * (this.siemens[branch] as number);
    for (let i = 0; i < state.freewheel.length; i++)
      state.freewheel[i] = plan.ports.amps[this.devices.freewheelPort(i)] as number;
    state.lampAmps = plan.ports.amps[this.devices.lampPort] as number;
  }

  private voltsAt(node: number): number {
    return node < 0 ? 0 : (this.state.volts[node] as number);
  }

  /** Solves both positions of what buzzes and keeps their mean. */
  private averageBuzz(buzz: Uint8Array, emf: number): void {
    const { state } = this;
    const halves = [0, 1].map((position) => {
      this.devices.force(buzz, position, this.plan.ports, this.loads(), this.groups, state.speeds);
      this.readState(emf);
      return {
        volts: state.volts.slice(),
        amps: state.amps.slice(),
        speeds: state.speeds.slice(),
        freewheel: state.freewheel.slice(),
        lamp: state.lampAmps,
      };
    });
    const [off, on] = halves;
    if (!off || !on) return;
    const mean = (into: Float64Array, one: Float64Array, other: Float64Array): void => {
      for (let i = 0; i < into.length; i++) into[i] = ((one[i] as number) + (other[i] as number)) / 2;
    };
    state.buzzing.set(buzz);
    mean(state.volts, off.volts, on.volts);
    mean(state.amps, off.amps, on.amps);
    mean(state.speeds, off.speeds, on.speeds);
    mean(state.freewheel, off.freewheel, on.freewheel);
    state.lampAmps = (off.lamp + on.lamp) / 2;
  }
}

function sourceVolts(values: Values, setup: SetupState, changes: readonly Change[]): number {
  if (setup.source === "disconnected") return 0;
  for (const change of changes) if (change.type === "battery") return change.volts;
  return setup.source === "charging" ? values.chargingVolts : values.restVolts;
}

/** A fused jump lead's ohms: a metre or two of 2.5 mm² and two clips (common practice, no source). */
export const jumperOhms = 0.02;
/** Pins a group that hangs on ports alone while its own potential is still unknown. */
const pinSiemens = 1;
const mostPlans = 400;
/** A branch of fewer than 100 µΩ is not told from its change with enough digits to spare. */
const mostSiemens = 1e4;
