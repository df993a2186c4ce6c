import type { Change } from "../netlist/change";
import {
  isPort,
  type NetClimatePanel,
  type Netlist,
  type NetModule,
  type NetRelay,
} from "../netlist/netlist";
import type { SetupState } from "../netlist/setup";
import type { Values } from "../netlist/values";
import { GroupSets } from "../network/groupSets";
import { mostHung } from "../network/hungChange";
import type { Edge, LdlPattern } from "../network/ldl";
import type { LinearElement, Load, Tap } from "../network/load";
import type { NetworkState } from "../network/networkState";
import { PortNetwork } from "../network/portNetwork";
import type { StageForm } from "./solvedState";

/** The values the devices of a netlist are solved with; they are the same for every state that is tried. */
export interface PointInputs {
  readonly values: Values;
  readonly setup: SetupState;
  readonly changes: readonly Change[];
  /** Ohms of every branch with the fault's changes applied; Infinity if open. */
  readonly ohms: Float64Array;
  /** 1 if the set-up lets a branch conduct. */
  readonly usable: Uint8Array;
}

const dutyTolerance = 1e-9;
/** Tolerance of a duty in a prediction; it is worth a few millivolts at the motor. */
const roughDuty = 1e-4;
const dutyRounds = 60;
/** An output stage conducts in one direction only. Reverse current above this many amps blocks it. */
const reverseAmps = 1e-6;

const one = (port: number): readonly Tap[] => [{ port, share: 1 }];

/**
 * The states of a netlist's relays, control modules and climate panels. All start off and change one at a time, in
 * file order, until none wants to change.
 */
export class DeviceStates {
  readonly ports: number;
  readonly lampPort: number;
  /** The first port reserved for a fault's changes to the network; there is one for each of `mostHung` changes. */
  readonly changePort: number;
  readonly portOfBranch: Int32Array;
  readonly on: Uint8Array;
  readonly duty: Float64Array;
  readonly forms: StageForm[];
  private readonly contacts: { branch: number; device: number; closedWhen: 0 | 1; taps: readonly Tap[] }[] =
    [];
  private readonly deviceOfModule: number[] = [];
  private readonly deviceOfHead: number[] = [];
  private readonly taps: (readonly Tap[])[];
  private readonly freewheelFirst: number;
  /** The nodes at the ends of every port except the lamp's (part of the set-up) and the changes'. */
  private readonly endsOf: Edge[];
  /** The groups of nodes after joining everything that conducts in the operating point just solved. */
  readonly sets = new GroupSets();
  /** Whether those groups are still valid for the network and the modules' modes. */
  private setsFound = false;
  private tolerance = dutyTolerance;
  /** Slope of the gap between the commanded and the actual duty, by control module. */
  private readonly lean: Float64Array;
  /** Duties of the previous operating point, used as the start for each new state. */
  private readonly before: Float64Array;
  private inputs!: PointInputs;
  /** The network for the devices' present states. */
  standing!: NetworkState;
  private current: LinearElement[] = [];
  /** Conducting elements other than stages and loads, for the devices' present states. */
  private fixed: LinearElement[] = [];
  /** Amps by element of `current`; the element of each live stage, or -1. */
  private readonly stageElement: Int32Array;

  /** @param network the network for the devices' present states */
  constructor(
    private readonly netlist: Netlist,
    private readonly network: (on: Uint8Array) => NetworkState,
  ) {
    const { branches, devices, modules } = netlist;
    this.portOfBranch = new Int32Array(branches.length).fill(-1);
    let ports = 0;
    branches.forEach(({ control }, index) => {
      if (!control || control.by === "selector" || control.by === "ignition") return;
      this.portOfBranch[index] = ports++;
      if (control.by !== "relay") return;
      const device = devices.findIndex(({ kind, index: at }) => kind === "relay" && at === control.relay);
      const closedWhen = control.closedWhen === "pulled" ? 1 : 0;
      this.contacts.push({ branch: index, device, closedWhen, taps: one(ports - 1) });
    });
    this.endsOf = [...branches.filter(isPort), ...modules.map(({ freewheel }) => freewheel)];
    this.freewheelFirst = ports;
    ports += modules.length;
    this.lampPort = ports++;
    this.changePort = ports;
    ports += mostHung;
    this.ports = ports;
    this.taps = Array.from({ length: ports }, (_, port) => one(port));
    this.on = new Uint8Array(devices.length);
    this.duty = new Float64Array(modules.length);
    this.lean = new Float64Array(modules.length).fill(-1);
    this.before = new Float64Array(modules.length);
    this.forms = modules.map((): StageForm => "open");
    this.stageElement = new Int32Array(modules.length);
    devices.forEach(({ kind, index }, device) => {
      if (kind === "module") this.deviceOfModule[index] = device;
      if (kind === "head") this.deviceOfHead[index] = device;
    });
  }

  tapsOf(port: number): readonly Tap[] {
    return this.taps[port] as readonly Tap[];
  }

  freewheelPort(module: number): number {
    return this.freewheelFirst + module;
  }

  /** Gives all these elements their ports on a network. */
  portsOn(pattern: LdlPattern): PortNetwork {
    const network = new PortNetwork(pattern, this.ports);
    this.endsOf.forEach((ends, port) => void network.setEnds(port, ends));
    return network;
  }

  /** Whether a contact or a panel conducts in the devices' present states; true for other branches. */
  conducts(branch: number, on: Uint8Array): boolean {
    const contact = this.contacts.find((own) => own.branch === branch);
    if (contact) return on[contact.device] === contact.closedWhen;
    const control = this.netlist.branches[branch]?.control;
    if (control?.by !== "head") return true;
    return on[this.deviceOfHead[control.index] as number] === 1;
  }

  /** What conducts in the devices' present states, with each motor as its winding. */
  elements(): readonly LinearElement[] {
    return this.current;
  }

  /**
   * Finds a consistent state of every device.
   * @param rough true for a prediction, which does not need an exact duty
   * @returns null, or 1 for each device that never settles
   */
  settle(
    inputs: PointInputs,
    loads: readonly Load[],
    speeds: Float64Array,
    rough = false,
  ): Uint8Array | null {
    this.inputs = inputs;
    this.tolerance = rough ? roughDuty : dutyTolerance;
    const { devices } = this.netlist;
    this.before.set(this.duty);
    const held = devices.map((_, device) => this.heldAt(device));
    held.forEach((hold, device) => {
      this.on[device] = hold ?? 0;
    });
    this.solve(loads, speeds);
    if (devices.length === 0) return null;
    const passes = Math.min(2 ** devices.length + 2, 24);
    const flips = new Uint8Array(devices.length);
    for (let pass = 0; pass < passes; pass++) {
      flips.fill(0);
      for (let device = 0; device < devices.length; device++) {
        if (held[device] !== null || !this.wantsChange(device)) continue;
        this.on[device] = this.on[device] === 1 ? 0 : 1;
        flips[device] = 1;
        this.duty.set(this.before);
        this.solve(loads, speeds);
      }
      if (!flips.includes(1)) return null;
    }
    return flips;
  }

  /**
   * Tries the states of the previous operating point. They are accepted if each device that is on sees more than its
   * pull-in or wake volts and each that is off sees less than its drop-out volts. A device in between could hold
   * itself in, so the previous point must have been solved from off.
   * @returns whether the states are consistent
   */
  settleAsBefore(inputs: PointInputs, loads: readonly Load[], speeds: Float64Array): boolean {
    this.inputs = inputs;
    this.tolerance = roughDuty;
    const { devices } = this.netlist;
    const held = devices.map((_, device) => this.heldAt(device));
    held.forEach((hold, device) => {
      if (hold !== null) this.on[device] = hold;
    });
    this.solve(loads, speeds);
    for (let device = 0; device < devices.length; device++) {
      const on = this.on[device] === 1;
      if (held[device] !== null) continue;
      this.on[device] = 0;
      const switchesOn = this.wantsChange(device);
      this.on[device] = on ? 1 : 0;
      if (switchesOn !== on) return false;
    }
    return true;
  }

  /** Fixes oscillating devices in one position and solves. */
  force(buzz: Uint8Array, position: number, loads: readonly Load[], speeds: Float64Array): void {
    buzz.forEach((buzzes, device) => {
      if (buzzes === 1) this.on[device] = position;
    });
    this.solve(loads, speeds);
  }

  /** The state a fault forces a device into, or null if it decides for itself. */
  private heldAt(device: number): 0 | 1 | null {
    const found = this.netlist.devices[device];
    for (const change of this.inputs.changes) {
      if (change.type === "relay" && found?.kind === "relay" && change.relay === found.index)
        return change.held === "pulled" ? 1 : 0;
      if (change.type === "module" && found?.kind === "module" && change.module === found.index) {
        if (change.held === "dead") return 0;
        if (change.held === "full-on") return 0;
      }
      if (change.type === "head" && found?.kind === "head" && change.head === found.index) {
        if (change.held === "dead") return 0;
      }
    }
    return null;
  }

  private wantsChange(device: number): boolean {
    const found = this.netlist.devices[device];
    if (!found) return false;
    const on = this.on[device] === 1;
    const { values } = this.inputs;
    if (found.kind === "relay") {
      const volts = this.coilVolts(this.netlist.relays[found.index] as NetRelay);
      const limit = (on ? values.dropOutVolts : values.pullInVolts)[found.index] as number;
      return on ? volts < limit : volts >= limit;
    }
    if (found.kind === "module") {
      const { feed, ground } = this.netlist.modules[found.index] as NetModule;
      const own = values.modules[found.index];
      const volts = this.supply(feed, ground);
      return on ? volts < (own?.sleepVolts ?? 0) : volts >= (own?.wakeVolts ?? 0);
    }
    const head = this.netlist.heads[found.index] as NetClimatePanel;
    const needed = values.heads[found.index]?.feedVolts ?? 0;
    const alive =
      this.supply(head.permanent, head.ground) >= needed && this.supply(head.switched, head.ground) >= needed;
    return alive !== on;
  }

  private coilVolts({ coil }: NetRelay): number {
    const branch = this.netlist.branches[coil];
    if (!branch || this.inputs.usable[coil] === 0) return 0;
    return Math.abs(this.volts(branch.a) - this.volts(branch.b));
  }

  /** Volts of a supply; 0 if either pin floats. */
  private supply(feed: number, ground: number): number {
    if (!this.sets.isTied(feed) || !this.sets.isTied(ground)) return 0;
    return this.volts(feed) - this.volts(ground);
  }

  private volts(node: number): number {
    return this.standing.plan.ports.volts(node);
  }

  /** Solves for the devices' present states; each control module's duty follows its command. */
  private solve(loads: readonly Load[], speeds: Float64Array): void {
    const { modules } = this.netlist;
    const free: number[] = [];
    for (let module = 0; module < modules.length; module++) {
      const duty = this.heldDuty(module);
      // A module that follows its command starts from its previous duty.
      if (duty !== null) this.duty[module] = duty;
      else free.push(module);
    }
    this.standing = this.network(this.on);
    this.fixed = this.fixedElements();
    this.setsFound = false;
    this.solveStages(loads, speeds);
    if (free.length === 0) return;
    for (let round = 0; round < 20; round++) {
      let moved = 0;
      for (const module of free) moved = Math.max(moved, this.findDuty(module, loads, speeds));
      if (free.length === 1 || moved < this.tolerance) return;
    }
  }

  /** Duty of a module that ignores its command (asleep, dead, full on or stuck); null if it follows the command. */
  private heldDuty(module: number): number | null {
    for (const change of this.inputs.changes) {
      if (change.type !== "module" || change.module !== module) continue;
      if (typeof change.held !== "object") return 0;
      return this.on[this.deviceOfModule[module] as number] === 1 ? change.held.duty : 0;
    }
    return this.on[this.deviceOfModule[module] as number] === 1 ? null : 0;
  }

  private isFullOn(module: number): boolean {
    return this.inputs.changes.some(
      (change) => change.type === "module" && change.module === module && change.held === "full-on",
    );
  }

  /**
   * Finds the duty at which a module's command agrees with the effect of that duty on the network. The root between 0
   * and 1 is found by the secant method, with a bisection step whenever the secant leaves the bracket.
   * @returns how far the duty moved
   */
  private findDuty(module: number, loads: readonly Load[], speeds: Float64Array): number {
    const before = this.duty[module] as number;
    // The bracket's ends lie just outside 0 and 1 until they have been evaluated, so that a step back onto an
    // evaluated end makes no progress and stops the search.
    let [low, high] = [-Number.EPSILON, 1 + Number.EPSILON];
    let [earlier, earlierGap] = [Number.NaN, Number.NaN];
    for (let round = 0; round < dutyRounds; round++) {
      const duty = this.duty[module] as number;
      const gap = this.askedDuty(module) - duty;
      if (Math.abs(gap) < this.tolerance) break;
      if (gap > 0) low = Math.max(low, duty);
      else high = Math.min(high, duty);
      if (high - low < dutyTolerance) break;
      // The first step uses the slope of the previous operating point, because the effect of a duty on its own command
      // hardly changes.
      const lean = (gap - earlierGap) / (duty - earlier);
      if (Number.isFinite(lean) && lean < 0) this.lean[module] = lean;
      let next = duty - gap / (this.lean[module] as number);
      if (!(next > low && next < high)) next = Math.min(1, Math.max(0, (low + high) / 2));
      [earlier, earlierGap] = [duty, gap];
      this.duty[module] = next;
      this.solveStages(loads, speeds);
    }
    return Math.abs((this.duty[module] as number) - before);
  }

  private askedDuty(module: number): number {
    const { command, ground } = this.netlist.modules[module] as NetModule;
    const own = this.inputs.values.modules[module];
    if (!own) return 0;
    const volts = this.volts(command) - this.volts(ground);
    const duty = (volts - own.zeroVolts) / (own.fullVolts - own.zeroVolts);
    return Math.min(1, Math.max(0, duty));
  }

  /** Solves at the present duties; stages that would be driven backwards are blocked. */
  private solveStages(loads: readonly Load[], speeds: Float64Array): void {
    const { modules } = this.netlist;
    for (let module = 0; module < modules.length; module++) this.form(module, this.firstForm(module));
    for (let round = 0; round <= 2 * modules.length; round++) {
      this.current = this.conducting(loads);
      if (!this.setsFound) this.joinSets();
      this.setsFound = true;
      speeds.fill(0);
      const amps = this.standing.plan.ports.solve(this.current, loads, this.sets.roots, speeds);
      let settled = true;
      for (let module = 0; module < modules.length; module++) {
        const next = this.nextForm(module, amps);
        if (next === this.forms[module]) continue;
        this.form(module, next);
        settled = false;
      }
      if (settled) return;
    }
  }

  private form(module: number, form: StageForm): void {
    if (this.forms[module] === form) return;
    this.forms[module] = form;
    this.setsFound = false;
  }

  private firstForm(module: number): StageForm {
    if (this.isFullOn(module)) return "through";
    const duty = this.duty[module] as number;
    if (duty <= 0) return "open";
    if (this.netlist.modules[module]?.part.drive === "pwm") return "chopping";
    return duty >= 1 ? "through" : "regulating";
  }

  private nextForm(module: number, amps: Float64Array): StageForm {
    const form = this.forms[module] as StageForm;
    if (form === "open" || this.isFullOn(module)) return form;
    const { stage } = this.netlist.modules[module] as NetModule;
    const own = amps[this.stageElement[module] as number] as number;
    if (own < -reverseAmps) return "open";
    if (form !== "regulating") return form;
    const branch = this.netlist.branches[stage];
    const across = this.volts(branch?.a ?? -1) - this.volts(branch?.b ?? -1);
    return across < own * (this.inputs.ohms[stage] as number) - 1e-9 ? "through" : form;
  }

  /** Everything that conducts, with the loads last. */
  private conducting(loads: readonly Load[]): LinearElement[] {
    const elements = this.fixed.slice();
    const { modules } = this.netlist;
    for (let module = 0; module < modules.length; module++) {
      this.stageElement[module] = elements.length;
      const element = this.stageOf(module, (modules[module] as NetModule).stage);
      if (element) elements.push(element);
    }
    for (let load = 0; load < loads.length; load++) elements.push((loads[load] as Load).element);
    return elements;
  }

  private fixedElements(): LinearElement[] {
    const { ohms, usable, setup, values } = this.inputs;
    const elements = this.standing.changed.map(({ ohms }, index): LinearElement => {
      const taps = this.taps[this.changePort + index] as readonly Tap[];
      return { carries: taps, senses: taps, ohms, emfVolts: 0 };
    });
    if (this.standing.devicesInside) return elements;
    for (const { branch, device, closedWhen, taps } of this.contacts) {
      if (usable[branch] === 1 && this.on[device] === closedWhen)
        elements.push({ carries: taps, senses: taps, ohms: ohms[branch] as number, emfVolts: 0 });
    }
    this.netlist.devices.forEach(({ kind, index }, device) => {
      if (kind !== "head" || this.on[device] === 0) return;
      const { source } = this.netlist.heads[index] as NetClimatePanel;
      const taps = this.taps[this.portOfBranch[source] as number] as readonly Tap[];
      const asked = this.heldCommand(index) ?? setup.commands[index] ?? 0;
      const emfVolts = asked * (values.heads[index]?.commandTimes ?? 1);
      if (usable[source] === 1)
        elements.push({ carries: taps, senses: taps, ohms: ohms[source] as number, emfVolts });
    });
    return elements;
  }

  /** Command volts of a stuck panel, or null. */
  private heldCommand(head: number): number | null {
    for (const change of this.inputs.changes) {
      if (change.type !== "head" || change.head !== head || change.held === "dead") continue;
      const commands = Object.values(this.netlist.heads[head]?.part.commands ?? {});
      const [low, high] = [Math.min(...commands), Math.max(...commands)];
      return low + change.held.share * (high - low);
    }
    return null;
  }

  private stageOf(module: number, stage: number): LinearElement | null {
    const form = this.forms[module];
    if (form === "open" || this.inputs.usable[stage] === 0) return null;
    const onOhms = this.inputs.ohms[stage] as number;
    const port = this.portOfBranch[stage] as number;
    const through = this.taps[port] as readonly Tap[];
    if (form === "through") return { carries: through, senses: through, ohms: onOhms, emfVolts: 0 };
    const duty = this.duty[module] as number;
    const mixed: readonly Tap[] = [
      { port, share: duty },
      { port: this.freewheelPort(module), share: 1 - duty },
    ];
    if (form === "chopping") return { carries: mixed, senses: mixed, ohms: duty * onOhms, emfVolts: 0 };
    return { carries: through, senses: mixed, ohms: 0, emfVolts: 0 };
  }

  /**
   * Joins the groups of nodes through everything that conducts; the result stays valid while neither the network nor a
   * stage's mode changes.
   */
  private joinSets(): void {
    const { sets } = this;
    sets.begin(this.standing.groups);
    for (const { carries } of this.current) for (const { port } of carries) sets.join(this.edgeOf(port));
    this.netlist.modules.forEach(({ feed, ground, freewheel }, module) => {
      // A regulating stage ties both motor legs to both supply pins, so all four are in one group.
      if (this.forms[module] !== "regulating") return;
      sets.join({ a: feed, b: ground });
      sets.join(freewheel);
    });
  }

  private edgeOf(port: number): Edge | null {
    if (port === this.lampPort) return this.inputs.setup.lamp;
    if (port >= this.changePort) return this.standing.changed[port - this.changePort]?.ends ?? null;
    return this.endsOf[port] ?? null;
  }
}
