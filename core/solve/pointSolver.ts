import { changedMotor, type MotorConstants } from "../motor/motorConstants";
import { DeviceStates } from "./devices/deviceStates";
import type { SolvedState } from "./devices/solvedState";
import type { Change } from "./netlist/change";
import { type Branch, isPort, type Netlist } from "./netlist/netlist";
import type { SetupState } from "./netlist/setup";
import type { Values } from "./netlist/values";
import type { Groups } from "./network/connectivity";
import { hang, type NetworkChanges, networkChanges } from "./network/hungChange";
import { type Edge, inverseDiagonal, ldlRoom, seenOhms } from "./network/ldl";
import { type Bridge, LinearNetworks } from "./network/linearNetwork";
import type { Load } from "./network/load";
import type {
  BareNetwork,
  HealthyNetwork,
  HealthyState,
  HungChange,
  NetworkState,
} from "./network/networkState";
import { loadLamp, ratedAmps } from "./tungstenLamp";

export type { SolvedState } from "./devices/solvedState";
export type { HealthyNetwork } from "./network/networkState";

/**
 * The accuracy of an operating point: exact; rough, good enough for a prediction; or rough with the device states of
 * the previous point, which are tried first.
 */
export type Aim = "exact" | "rough" | "rough-as-before";

/**
 * Operating points of one netlist by nodal analysis (Ho, Ruehli and Brennan 1975, without the branch-current rows,
 * since every branch here has resistance). The linear network is factorised once. What switches, turns or glows
 * (contacts, motors, control modules, panels, the load lamp) connects to it as ports.
 */
export class PointSolver {
  private readonly size: number;
  private readonly ohms: Float64Array;
  private readonly usable: Uint8Array;
  private readonly siemens: Float64Array;
  private emfs: Float64Array;
  private readonly scratch: Float64Array;
  private readonly portBranch: Uint8Array;
  private readonly devices: DeviceStates;
  /** Networks with contacts and panels outside, for single operating points. */
  private readonly bare: LinearNetworks;
  /** Healthy networks with contacts and panels inside, by device states. */
  private readonly whole: LinearNetworks;
  /** Ports of motors and output stages alone. */
  private readonly loadPortOf: Int32Array;
  /** Volts by node, followed by the reference's. */
  private readonly padded: Float64Array;
  /** Indices of each branch's ends in `padded`. */
  private readonly fromPlace: Int32Array;
  private readonly toPlace: Int32Array;
  private readonly everyBranch: Int32Array;
  private ampsRead: Int32Array;
  private motors: MotorConstants[] = [];
  private lamp: Edge | null = null;
  /** The network of a single operating point; null while solving on a healthy network. */
  private alone: BareNetwork | null = null;
  private hanging: { readonly network: HealthyNetwork; readonly changes: NetworkChanges } | null = null;
  /** Counts the solves, so that each network knows whether its changes are already applied. */
  private solves = 0;
  /** Groups of healthy networks by set-up, device states and opened branch (-1 for none). */
  private readonly groupsOf = new WeakMap<SetupState, Map<string, Groups>>();
  /** The set-up and changes the groups were found for. */
  private groupsFor: { setup: SetupState; changes: readonly Change[]; groups: Groups } | null = null;
  private readonly state: {
    -readonly [K in keyof SolvedState]: SolvedState[K];
  };

  constructor(private readonly netlist: Netlist) {
    this.size = netlist.nodeNames.length;
    const branches = netlist.branches.length;
    this.ohms = new Float64Array(branches);
    this.usable = new Uint8Array(branches);
    this.siemens = new Float64Array(branches);
    this.emfs = new Float64Array(branches);
    this.scratch = new Float64Array(this.size);
    // The reference's volts are the 0 after the last node's.
    const place = (node: number): number => (node < 0 ? this.size : node);
    this.padded = new Float64Array(this.size + 1);
    this.fromPlace = Int32Array.from(netlist.branches, ({ a }) => place(a));
    this.toPlace = Int32Array.from(netlist.branches, ({ b }) => place(b));
    this.everyBranch = Int32Array.from(netlist.branches, (_, branch) => branch);
    this.ampsRead = this.everyBranch;
    this.portBranch = Uint8Array.from(netlist.branches, (branch) => (isPort(branch) ? 1 : 0));
    this.devices = new DeviceStates(netlist, (on) => this.standing(on));
    const makePorts = this.devices.portsOn.bind(this.devices);
    this.bare = new LinearNetworks(netlist, (branch) => !isPort(branch), makePorts);
    this.whole = new LinearNetworks(netlist, (branch) => !isLoad(branch), makePorts);
    this.loadPortOf = this.devices.portOfBranch.map((port, branch) =>
      isLoad(netlist.branches[branch] as Branch) ? port : -1,
    );
    this.state = {
      volts: this.padded.subarray(0, this.size),
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
   */
  solve(values: Values, setup: SetupState, changes: readonly Change[], aim: Aim = "exact"): SolvedState {
    const bridges = this.prepare(values, setup, changes);
    const { siemens } = this;
    for (let i = 0; i < siemens.length; i++) if (this.portBranch[i] === 1) siemens[i] = 0;
    if (this.groupsFor?.setup !== setup || this.groupsFor.changes !== changes)
      this.groupsFor = { setup, changes, groups: this.bare.groups(siemens, bridges) };
    const { groups } = this.groupsFor;
    const plan = this.bare.plan(bridges);
    if (setup.lamp) plan.ports.setEnds(this.devices.lampPort, setup.lamp);
    this.bare.factor(plan, siemens, bridges, groups, this.emfs);
    const portOf = this.devices.portOfBranch;
    this.alone = { plan, siemens, portOf, devicesInside: false, groups, changed: [] };
    this.hanging = null;
    return this.settle(values, setup, changes, aim);
  }

  /** Prepares the healthy network of a vehicle in a set-up, for use with `solveOn`. */
  healthyNetwork(values: Values, setup: SetupState): HealthyNetwork {
    this.prepare(values, setup, []);
    const network: HealthyNetwork = {
      values,
      setup,
      emfs: this.emfs,
      ohms: this.ohms.slice(),
      usable: this.usable.slice(),
      on: new Uint8Array(this.netlist.devices.length),
      duty: new Float64Array(this.netlist.modules.length),
      standings: new Map(),
    };
    const { on, duty } = this.solveOn(network, []) ?? this.solve(values, setup, []);
    network.on.set(on);
    network.duty.set(duty);
    return network;
  }

  /**
   * Starts the next solve on a vehicle from its probable device states.
   * @param last the vehicle on which the same changes were solved before: its device states, and its duties' distance
   *   from healthy, are taken over; null for this vehicle's own healthy states
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
   * Solves changes on a healthy network factorised before. Its branches keep their factors; the changes, motors,
   * output stages and lamp connect through ports.
   * @returns null if that is not possible (another battery, or too many changes at once); then use `solve`
   */
  solveOn(network: HealthyNetwork, changes: readonly Change[], aim: Aim = "exact"): SolvedState | null {
    const { values, setup } = network;
    const own = networkChanges(this.netlist, network, changes, (branch) => this.loadPortOf[branch] === -1);
    if (!own) return null;
    const { ohms, usable } = this;
    this.hanging = { network, changes: own };
    this.alone = null;
    this.solves += 1;
    this.lamp = setup.lamp;
    ohms.set(network.ohms);
    usable.set(network.usable);
    this.emfs = network.emfs;
    this.motors = values.motors.slice();
    for (const { branch } of this.netlist.motors) ohms[branch] = values.ohms[branch] as number;
    for (const change of changes) {
      if (change.type === "motor") this.changeMotor(change);
      if (change.type !== "series") continue;
      ohms[change.branch] = (ohms[change.branch] as number) + change.ohms;
      if (change.ohms === Number.POSITIVE_INFINITY) usable[change.branch] = 0;
    }
    this.windMotors(values);
    return this.settle(values, setup, changes, aim);
  }

  /** The network for the devices' present states. */
  private standing(on: Uint8Array): NetworkState {
    if (this.alone) return this.alone;
    const { network, changes } = this.hanging as NonNullable<typeof this.hanging>;
    let key = 0;
    for (let device = 0; device < on.length; device++) key = 2 * key + (on[device] as number);
    const standing = network.standings.get(key) ?? this.healthyStanding(network, key, on);
    if (standing.hungFor === this.solves) return standing;
    standing.hungFor = this.solves;
    const { branches } = this.netlist;
    const { groups, changed } = hang(changes, standing, branches, (branch) =>
      this.groupsWithout(network, standing, branch),
    );
    standing.groups = groups;
    standing.changed = changed;
    const { ports } = standing.plan;
    ports.regroup(groups);
    for (let i = 0; i < changed.length; i++)
      ports.movePort(this.devices.changePort + i, (changed[i] as HungChange).ends);
    return standing;
  }

  /** Factorises a healthy network for the devices' present states. */
  private healthyStanding(network: HealthyNetwork, key: number, on: Uint8Array): HealthyState {
    const { setup, ohms, usable, emfs } = network;
    const siemens = Float64Array.from(ohms, (own, branch) =>
      usable[branch] === 0 || this.loadPortOf[branch] !== -1 || !this.devices.conducts(branch, on)
        ? 0
        : 1 / own,
    );
    const bridges = jumpersOf(setup);
    const plan = this.whole.ownPlan(bridges);
    if (setup.lamp) plan.ports.setEnds(this.devices.lampPort, setup.lamp);
    const groups = this.groupsWithout({ setup }, { key, siemens }, -1);
    this.whole.factor(plan, siemens, bridges, groups, emfs);
    const standing: HealthyState = {
      plan,
      siemens,
      portOf: this.loadPortOf,
      devicesInside: true,
      key,
      whole: groups,
      groups,
      changed: [],
      hungFor: -1,
      inverse: null,
    };
    network.standings.set(key, standing);
    return standing;
  }

  /** Groups of a healthy network with one branch open, or none (-1); they are the same for all vehicles in a set-up. */
  private groupsWithout(
    { setup }: { readonly setup: SetupState },
    { key, siemens }: { readonly key: number; readonly siemens: Float64Array },
    branch: number,
  ): Groups {
    const known = this.groupsOf.get(setup) ?? new Map<string, Groups>();
    this.groupsOf.set(setup, known);
    const place = `${key}/${branch}`;
    const before = known.get(place);
    if (before) return before;
    const open = siemens.slice();
    if (branch >= 0) open[branch] = 0;
    const groups = this.whole.groups(open, jumpersOf(setup));
    known.set(place, groups);
    return groups;
  }

  private settle(values: Values, setup: SetupState, changes: readonly Change[], aim: Aim): SolvedState {
    const { ohms, usable, state, devices } = this;
    const loads = this.loads();
    const inputs = { values, setup, changes, ohms, usable };
    const settled = aim === "rough-as-before" && devices.settleAsBefore(inputs, loads, state.speeds);
    const buzz = settled ? null : devices.settle(inputs, loads, state.speeds, aim !== "exact");
    state.buzzing.fill(0);
    if (buzz) this.averageBuzz(buzz);
    else this.readState();
    return state;
  }

  /** Ohms between two nodes in the state just solved, with motors as their windings; Infinity if not connected. */
  ohmsBetween(a: number, b: number): number {
    if (a === b) return 0;
    if (!this.joined(a, b)) return Number.POSITIVE_INFINITY;
    const { pattern, values, ports } = this.devices.standing.plan;
    const bare = seenOhms(pattern, values, { a, b }, this.scratch);
    const relief = ports.relief(this.devices.elements(), this.devices.sets.roots);
    return Math.max(0, bare - relief({ a, b }));
  }

  /** Ohms from every node to the reference in the state just solved, with motors as their windings. */
  ohmsBehind(out: Float64Array): void {
    const { pattern, ports } = this.devices.standing.plan;
    const inverse = this.inverse();
    ports.reliefOfAll(this.devices.elements(), this.devices.sets.roots, out);
    for (let node = 0; node < this.size; node++) {
      const bare = inverse[pattern.stepOf[node] as number] as number;
      const floats = this.state.floating[node] === 1;
      out[node] = floats ? Number.POSITIVE_INFINITY : Math.max(0, bare - (out[node] as number));
    }
  }

  /** The diagonal of the inverse for the network just solved, by step. */
  private inverse(): Float64Array {
    const { standing } = this.devices;
    if (standing.devicesInside && standing.inverse) return standing.inverse;
    const { pattern, values } = standing.plan;
    const inverse = ldlRoom(pattern);
    inverseDiagonal(pattern, values, inverse);
    if (standing.devicesInside) standing.inverse = inverse;
    return inverse;
  }

  /** True if both nodes are connected in the state just solved. */
  private joined(a: number, b: number): boolean {
    const { sets } = this.devices;
    return sets.rootOf(a) === sets.rootOf(b);
  }

  /**
   * Takes over a vehicle's values with the changes applied.
   * @returns connections in addition to the netlist's own branches
   */
  private prepare(values: Values, setup: SetupState, changes: readonly Change[]): Bridge[] {
    const { ohms, usable, siemens } = this;
    const bridges = jumpersOf(setup);
    this.motors = values.motors.slice();
    ohms.set(values.ohms);
    for (const change of changes) {
      if (change.type === "series") ohms[change.branch] = (ohms[change.branch] as number) + change.ohms;
      else if (change.type === "bridge") bridges.push(change);
      else if (change.type === "motor") this.changeMotor(change);
    }
    this.windMotors(values);
    for (let i = 0; i < ohms.length; i++) {
      const open = setup.closed[i] === 0 || ohms[i] === Number.POSITIVE_INFINITY;
      usable[i] = open ? 0 : 1;
      siemens[i] = open ? 0 : 1 / (ohms[i] as number);
    }
    const emfs = new Float64Array(ohms.length);
    emfs[this.netlist.battery.branch] = sourceVolts(values, setup, changes);
    this.netlist.heads.forEach(({ source }, head) => {
      emfs[source] = (setup.commands[head] ?? 0) * (values.heads[head]?.commandTimes ?? 1);
    });
    this.emfs = emfs;
    this.lamp = setup.lamp;
    return bridges;
  }

  /** Gives each motor's branch the ohms of its winding plus any ohms added in series. */
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

  /** Motors with an intact winding, and the lamp. */
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
      found.push(load(this.loadPortOf[branch] as number, constants.ohms, { constants, index }));
    }
    if (this.lamp) found.push(load(this.devices.lampPort, loadLamp.ratedVolts / ratedAmps(loadLamp), null));
    return found;
  }

  /** Limits later states to the amps of these branches; null restores all branches. */
  readAmpsOf(branches: Int32Array | null): void {
    this.ampsRead = branches ?? this.everyBranch;
  }

  private readState(): void {
    const { state, padded, fromPlace, toPlace, ampsRead, ohms, emfs } = this;
    const { floating, amps } = state;
    const { plan, portOf, siemens } = this.devices.standing;
    const { ports } = plan;
    ports.readVolts(state.volts);
    if (this.devices.sets.markFloating(floating))
      for (let node = 0; node < floating.length; node++) if (floating[node] === 1) padded[node] = 0;
    for (let i = 0; i < ampsRead.length; i++) {
      const branch = ampsRead[i] as number;
      const port = portOf[branch] as number;
      if (port >= 0) amps[branch] = ports.amps[port] as number;
      else if (siemens[branch] === 0) amps[branch] = 0;
      else {
        const across =
          (padded[fromPlace[branch] as number] as number) - (padded[toPlace[branch] as number] as number);
        amps[branch] = (across - (emfs[branch] as number)) / (ohms[branch] as number);
      }
    }
    for (let i = 0; i < state.freewheel.length; i++)
      state.freewheel[i] = ports.amps[this.devices.freewheelPort(i)] as number;
    state.lampAmps = ports.amps[this.devices.lampPort] as number;
  }

  /** Solves both positions of oscillating devices and returns their mean. */
  private averageBuzz(buzz: Uint8Array): void {
    const { state } = this;
    const halves = [0, 1].map((position) => {
      this.devices.force(buzz, position, this.loads(), state.speeds);
      this.readState();
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

/** Motors and output stages, which have ports even if the device states are given. */
const isLoad = ({ control }: Branch): boolean => control?.by === "motor" || control?.by === "module";

const jumpersOf = ({ jumpers }: SetupState): Bridge[] =>
  jumpers.map(({ a, b }) => ({ a, b, ohms: jumperOhms }));

function sourceVolts(values: Values, setup: SetupState, changes: readonly Change[]): number {
  if (setup.source === "disconnected") return 0;
  for (const change of changes) if (change.type === "battery") return change.volts;
  return setup.source === "charging" ? values.chargingVolts : values.restVolts;
}

/** Ohms of a fused jump lead: one or two metres of 2.5 mm² and two clips (common practice, no source). */
export const jumperOhms = 0.02;
