import { changedMotor, type MotorConstants, speedSlope, steadySpeed } from "../motor/motorConstants";
import type { Change } from "./change";
import { type Groups, groupsOf } from "./connectivity";
import { backSolve, type Edge, factorise, type LdlPattern, ldlRoom, planLdl, seenOhms } from "./ldl";
import type { Netlist } from "./netlist";
import { newtonPorts } from "./portNewton";
import type { SetupState } from "./setup";
import { lampAmps, lampSiemens, loadLamp, ratedAmps } from "./tungstenLamp";
import type { Values } from "./values";

/**
 * One solved state, in buffers the solver owns: read what is needed before the next `solve`.
 * Where a relay buzzes, volts, amps and speeds are the average of its two states.
 */
export interface SolvedState {
  /** Volts by node; meaningless where `floats`. */
  readonly volts: Float64Array;
  /** Amps by branch, from `a` to `b`. */
  readonly amps: Float64Array;
  /** Ohms of each branch as solved; Infinity where open. */
  readonly ohms: Float64Array;
  /** Radians a second by motor. */
  readonly speeds: Float64Array;
  /** 1 where no path leads to the reference. */
  readonly floating: Uint8Array;
  /** 1 for each relay that never settles. */
  readonly buzzing: Uint8Array;
  /** 1 for each relay that has pulled in. */
  readonly pulled: Uint8Array;
  readonly lampAmps: number;
}

/** Each network with its own extra connections keeps its elimination plan. */
interface Plan {
  readonly pattern: LdlPattern;
  readonly values: Float64Array;
  readonly x: Float64Array;
  readonly columns: Float64Array[];
}

/**
 * Operating points of one netlist by nodal analysis (Ho, Ruehli and Brennan 1975, without the
 * branch-current rows: every branch here has resistance). The linear network is factorised once; motors
 * and the load lamp hang on it as ports whose own small system is solved by Newton.
 */
export class PointSolver {
  private readonly plans = new Map<string, Plan>();
  /** Groups by relay positions, good for as long as the same set-up and changes are solved again. */
  private readonly groupsBy = new Map<number, Groups>();
  private lastSetup: SetupState | null = null;
  private lastChanges: readonly Change[] | null = null;
  private groups!: Groups;
  private readonly size: number;
  private readonly ohms: Float64Array;
  private readonly siemens: Float64Array;
  private readonly scratch: Float64Array;
  private readonly pulled: Uint8Array;
  private readonly fromNode: Int32Array;
  private readonly toNode: Int32Array;
  /** Relay that switches a branch, -1 for none, and the position in which it conducts. */
  private readonly relayOf: Int32Array;
  private readonly conductsWhen: Uint8Array;
  private motors: MotorConstants[] = [];
  private bridges: { a: number; b: number; ohms: number }[] = [];
  private lamp: { a: number; b: number } | null = null;
  private plan!: Plan;
  private readonly state: {
    volts: Float64Array;
    amps: Float64Array;
    ohms: Float64Array;
    speeds: Float64Array;
    floating: Uint8Array;
    buzzing: Uint8Array;
    pulled: Uint8Array;
    lampAmps: number;
  };

  constructor(private readonly netlist: Netlist) {
    this.size = netlist.nodeNames.length;
    const branches = netlist.branches.length;
    this.ohms = new Float64Array(branches);
    this.siemens = new Float64Array(branches);
    this.scratch = new Float64Array(this.size);
    this.pulled = new Uint8Array(netlist.relays.length);
    this.fromNode = Int32Array.from(netlist.branches, ({ a }) => a);
    this.toNode = Int32Array.from(netlist.branches, ({ b }) => b);
    this.relayOf = Int32Array.from(netlist.branches, ({ control }) =>
      control?.by === "relay" ? control.relay : -1,
    );
    this.conductsWhen = Uint8Array.from(netlist.branches, ({ control }) =>
      control?.by === "relay" && control.closedWhen === "pulled" ? 1 : 0,
    );
    this.state = {
      volts: new Float64Array(this.size),
      amps: new Float64Array(branches),
      ohms: this.ohms,
      speeds: new Float64Array(netlist.motors.length),
      floating: new Uint8Array(this.size),
      buzzing: new Uint8Array(netlist.relays.length),
      pulled: this.pulled,
      lampAmps: 0,
    };
  }

  /** Solves one state of one vehicle. */
  solve(values: Values, setup: SetupState, changes: readonly Change[]): SolvedState {
    if (setup !== this.lastSetup || changes !== this.lastChanges) {
      this.groupsBy.clear();
      this.lastSetup = setup;
      this.lastChanges = changes;
    }
    this.prepare(values, setup, changes);
    const emf = this.sourceVolts(values, setup, changes);
    this.settleRelays(values, emf, changes);
    return this.state;
  }

  /** Ohms between two nodes of the state just solved, motors at their winding; Infinity if apart. */
  ohmsBetween(a: number, b: number): number {
    if (a === b) return 0;
    if (!this.joined(a, b)) return Number.POSITIVE_INFINITY;
    return seenOhms(this.plan.pattern, this.plan.values, { a, b }, this.scratch);
  }

  /** True when both nodes hang together in the state just solved. */
  joined(a: number, b: number): boolean {
    const { of, grounded } = this.groups;
    return (a < 0 ? grounded : of[a]) === (b < 0 ? grounded : of[b]);
  }

  private sourceVolts(values: Values, setup: SetupState, changes: readonly Change[]): number {
    if (setup.source === "disconnected") return 0;
    for (const change of changes) if (change.type === "battery") return change.volts;
    return setup.source === "charging" ? values.chargingVolts : values.restVolts;
  }

  private prepare(values: Values, setup: SetupState, changes: readonly Change[]): void {
    const { ohms, netlist } = this;
    this.bridges = setup.jumpers.map(({ a, b }) => ({ a, b, ohms: jumperOhms }));
    this.motors = [...values.motors];
    ohms.set(values.ohms);
    for (const change of changes) {
      if (change.type === "series") ohms[change.branch] = (ohms[change.branch] as number) + change.ohms;
      else if (change.type === "bridge") this.bridges.push(change);
      else if (change.type === "motor") this.changeMotor(change);
    }
    for (let motor = 0; motor < netlist.motors.length; motor++) {
      const branch = netlist.motors[motor]?.branch as number;
      const own = this.motors[motor] as MotorConstants;
      const extra = (ohms[branch] as number) - (values.ohms[branch] as number);
      ohms[branch] = own.ohms + extra;
      if (extra > 0) this.motors[motor] = { ...own, ohms: own.ohms + extra };
    }
    this.lamp = setup.lamp;
    if (setup.lamp) this.bridges.push({ ...setup.lamp, ohms: loadLamp.ratedVolts / ratedAmps(loadLamp) });
    this.plan = this.planFor();
    for (let i = 0; i < ohms.length; i++) {
      this.siemens[i] = setup.closed[i] === 1 ? 1 / (ohms[i] as number) : 0;
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
    if (known) return known;
    const edges: Edge[] = [...this.netlist.branches, ...this.bridges];
    const pattern = planLdl(this.size, edges);
    const ports = this.netlist.motors.length + 1;
    const plan = {
      pattern,
      values: ldlRoom(pattern),
      x: new Float64Array(this.size),
      columns: Array.from({ length: ports }, () => new Float64Array(this.size)),
    };
    this.plans.set(key, plan);
    return plan;
  }

  /**
   * Relays start released and change one at a time in file order until none wants to; those that
   * still change after every combination could have been met are buzzing.
   */
  private settleRelays(values: Values, emf: number, changes: readonly Change[]): void {
    const { netlist, pulled, state } = this;
    state.buzzing.fill(0);
    pulled.fill(0);
    for (const change of changes) {
      if (change.type === "relay" && change.held === "pulled") pulled[change.relay] = 1;
    }
    const held = (relay: number): boolean =>
      changes.some((change) => change.type === "relay" && change.relay === relay);
    this.solveNetwork(emf);
    const passes = Math.min(2 ** netlist.relays.length + 2, 24);
    const flips = new Uint8Array(netlist.relays.length);
    for (let pass = 0; pass < passes; pass++) {
      flips.fill(0);
      for (let relay = 0; relay < netlist.relays.length; relay++) {
        if (held(relay) || !this.wantsChange(values, relay)) continue;
        pulled[relay] = pulled[relay] === 1 ? 0 : 1;
        flips[relay] = 1;
        this.solveNetwork(emf);
      }
      if (!flips.includes(1)) return;
    }
    this.averageBuzz(flips, emf);
  }

  private wantsChange(values: Values, relay: number): boolean {
    const branch = this.netlist.branches[this.netlist.relays[relay]?.coil as number];
    if (!branch) return false;
    const volts = Math.abs(this.voltsAt(branch.a) - this.voltsAt(branch.b));
    const conducts = (this.siemens[this.netlist.relays[relay]?.coil as number] as number) > 0;
    const coilVolts = conducts ? volts : 0;
    return this.pulled[relay] === 1
      ? coilVolts < (values.dropOutVolts[relay] as number)
      : coilVolts >= (values.pullInVolts[relay] as number);
  }

  private voltsAt(node: number): number {
    return node < 0 ? 0 : (this.state.volts[node] as number);
  }

  private averageBuzz(flips: Uint8Array, emf: number): void {
    const { state, pulled } = this;
    state.buzzing.set(flips);
    const halves = [0, 1].map((position) => {
      flips.forEach((flip, relay) => {
        if (flip === 1) pulled[relay] = position;
      });
      this.solveNetwork(emf);
      return {
        volts: state.volts.slice(),
        amps: state.amps.slice(),
        speeds: state.speeds.slice(),
        lamp: state.lampAmps,
      };
    });
    const [open, shut] = halves;
    if (!open || !shut) return;
    const mean = (into: Float64Array, one: Float64Array, other: Float64Array): void => {
      for (let i = 0; i < into.length; i++) into[i] = ((one[i] as number) + (other[i] as number)) / 2;
    };
    mean(state.volts, open.volts, shut.volts);
    mean(state.amps, open.amps, shut.amps);
    mean(state.speeds, open.speeds, shut.speeds);
    state.lampAmps = (open.lamp + shut.lamp) / 2;
  }

  /** Solves with the relays as they stand. */
  private solveNetwork(emf: number): void {
    this.assemble();
    const { plan } = this;
    factorise(plan.pattern, plan.values);
    const { positive, branch } = this.netlist.battery;
    plan.x.fill(0);
    plan.x[plan.pattern.stepOf[positive] as number] = emf * this.conductance(branch);
    backSolve(plan.pattern, plan.values, plan.x);
    this.solvePorts();
    this.readState(emf);
  }

  private conductance(branch: number): number {
    const relay = this.relayOf[branch] as number;
    if (relay >= 0 && this.pulled[relay] !== this.conductsWhen[branch]) return 0;
    return this.siemens[branch] as number;
  }

  private assemble(): void {
    const { netlist, plan, state } = this;
    const { values, pattern } = plan;
    values.fill(0);
    const count = netlist.branches.length;
    for (let i = 0; i < count; i++) {
      const siemens = this.conductance(i);
      if (siemens > 0) this.stamp(i, this.fromNode[i] as number, this.toNode[i] as number, siemens);
    }
    for (let i = 0; i < this.bridges.length; i++) {
      const bridge = this.bridges[i] as { a: number; b: number; ohms: number };
      this.stamp(count + i, bridge.a, bridge.b, 1 / bridge.ohms);
    }
    this.groups = this.conductingGroups();
    state.floating.set(this.groups.floating);
    for (const node of this.groups.pins) this.add(pattern.stepOf[node] as number, pinSiemens);
  }

  private conductingGroups(): Groups {
    let positions = 0;
    for (let relay = 0; relay < this.pulled.length; relay++)
      positions = positions * 2 + (this.pulled[relay] as number);
    const known = this.groupsBy.get(positions);
    if (known) return known;
    const ends: number[] = [];
    for (let i = 0; i < this.fromNode.length; i++) {
      if (this.conductance(i) > 0) ends.push(this.fromNode[i] as number, this.toNode[i] as number);
    }
    for (const { a, b } of this.bridges) ends.push(a, b);
    const groups = groupsOf(this.size, ends);
    this.groupsBy.set(positions, groups);
    return groups;
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

  /** Ends of port p: the motors in order, then the load lamp. */
  private portEnds(port: number): Edge {
    const motor = this.netlist.motors[port];
    if (motor) return this.netlist.branches[motor.branch] as Edge;
    return this.lamp as Edge;
  }

  /** Current a port takes less than its stand-in resistance would, and its slope. */
  private portRelief(port: number, volts: number): { amps: number; slope: number } {
    if (port === this.netlist.motors.length) {
      const hot = ratedAmps(loadLamp) / loadLamp.ratedVolts;
      return {
        amps: hot * volts - lampAmps(loadLamp, volts),
        slope: hot - lampSiemens(loadLamp, volts),
      };
    }
    const motor = this.motors[port] as MotorConstants;
    const speed = steadySpeed(motor, volts);
    this.state.speeds[port] = speed;
    return {
      amps: (motor.k * speed) / motor.ohms,
      slope: (motor.k * speedSlope(motor, speed)) / motor.ohms,
    };
  }

  private across(x: Float64Array, port: number): number {
    const { a, b } = this.portEnds(port);
    const { stepOf } = this.plan.pattern;
    const volts = a < 0 ? 0 : (x[stepOf[a] as number] as number);
    return b < 0 ? volts : volts - (x[stepOf[b] as number] as number);
  }

  /** Node volts for one amp into a port, in the port's own column. */
  private portColumn(index: number, port: number): Float64Array {
    const { plan } = this;
    const column = plan.columns[index] as Float64Array;
    const { a, b } = this.portEnds(port);
    column.fill(0);
    if (a >= 0) column[plan.pattern.stepOf[a] as number] = 1;
    if (b >= 0) column[plan.pattern.stepOf[b] as number] = -1;
    backSolve(plan.pattern, plan.values, column);
    return column;
  }

  private inject(column: Float64Array, amps: number): void {
    const { x } = this.plan;
    if (amps === 0) return;
    for (let step = 0; step < this.size; step++) {
      x[step] = (x[step] as number) + amps * (column[step] as number);
    }
  }

  /** Adds what the motors and the load lamp do to the linear network's volts. */
  private solvePorts(): void {
    const { netlist, plan, state } = this;
    state.speeds.fill(0);
    const ports: number[] = [];
    for (let motor = 0; motor < netlist.motors.length; motor++) {
      const branch = netlist.motors[motor]?.branch as number;
      if (this.conductance(branch) > 0 && this.across(plan.x, motor) !== 0) ports.push(motor);
    }
    const only = ports[0];
    if (only !== undefined && ports.length === 1 && !this.lamp) this.solveOneMotor(only);
    else if (this.lamp || ports.length > 0)
      this.solveSeveralPorts(this.lamp ? [...ports, netlist.motors.length] : ports);
  }

  /**
   * One motor on a linear network has a closed form: with v = v0 + Z k ω / R the torque balance
   * k (v − k ω) / R = friction + viscous ω + fan ω² is a quadratic in ω.
   */
  private solveOneMotor(port: number): void {
    const motor = this.motors[port] as MotorConstants;
    const torque = (motor.k * this.across(this.plan.x, port)) / motor.ohms - motor.friction;
    if (motor.held || torque <= 0) return;
    const column = this.portColumn(0, port);
    const seen = this.across(column, port);
    const slope = motor.viscous + ((motor.k * motor.k) / motor.ohms) * (1 - seen / motor.ohms);
    const speed = (2 * torque) / (slope + Math.sqrt(slope * slope + 4 * motor.fan * torque));
    this.state.speeds[port] = speed;
    this.inject(column, (motor.k * speed) / motor.ohms);
  }

  /** Newton on the port voltages v = v0 + Z j(v). */
  private solveSeveralPorts(ports: readonly number[]): void {
    const open = ports.map((port) => this.across(this.plan.x, port));
    const columns = ports.map((port, index) => this.portColumn(index, port));
    const impedance = columns.map((column) => ports.map((other) => this.across(column, other)));
    const relief = newtonPorts(open, impedance, (i, volts) => this.portRelief(ports[i] as number, volts));
    relief.forEach((amps, i) => void this.inject(columns[i] as Float64Array, amps));
  }

  private readState(emf: number): void {
    const { netlist, plan, state } = this;
    const { branches } = netlist;
    for (let node = 0; node < this.size; node++) {
      state.volts[node] =
        state.floating[node] === 1 ? 0 : (plan.x[plan.pattern.stepOf[node] as number] as number);
    }
    for (let i = 0; i < branches.length; i++) {
      const across = this.voltsAt(this.fromNode[i] as number) - this.voltsAt(this.toNode[i] as number);
      state.amps[i] = across * this.conductance(i);
    }
    const { branch } = netlist.battery;
    state.amps[branch] = (state.amps[branch] as number) - emf * this.conductance(branch);
    netlist.motors.forEach((motor, index) => {
      const own = this.motors[index] as MotorConstants;
      const emfAmps = ((state.speeds[index] as number) * own.k) / own.ohms;
      state.amps[motor.branch] = (state.amps[motor.branch] as number) - emfAmps;
    });
    state.lampAmps = this.lamp
      ? lampAmps(loadLamp, this.voltsAt(this.lamp.a) - this.voltsAt(this.lamp.b))
      : 0;
  }
}

/** A fused jump lead's ohms: a metre or two of 2.5 mm² and two clips (common practice, no source). */
const jumperOhms = 0.02;
/** Ties a floating group to the reference while solving; its volts are reported as floating. */
const pinSiemens = 1;
