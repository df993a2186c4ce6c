// A simulated vehicle with a hidden fault, and the technician's instruments on it. It solves the exact
// netlist (the engine's has its wires lumped) with part values drawn here, and judges with its own tables.
import type { CatalogueEntry } from "../diagnose/catalogue";
import { type Fault, placeFault } from "../diagnose/fault";
import { type FaultName, faultId } from "../diagnose/faultId";
import { mechanicalModes } from "../motor/mechanicalMode";
import { rpmOf } from "../motor/motorConstants";
import type { Look, Reading } from "../predict/reading";
import type { Change } from "../solve/change";
import type { Netlist } from "../solve/netlist";
import { type OpenCircuit, openCircuit } from "../solve/openCircuit";
import { PointSolver } from "../solve/pointSolver";
import { lampEnds, type Setup, setupState } from "../solve/setup";
import { lampVolts, testLight } from "../solve/tungstenLamp";
import { nominalValues, type Values } from "../solve/values";
import type { Chance } from "./chance";
import type { World } from "./world";

/** Ranges severities are drawn from, log-uniform; the engine tries a few points of each. */
const severities: Readonly<Record<string, readonly [number, number]>> = {
  high: [0.25, 30],
  tight: [1.35, 2.8],
  "shorted-turns": [0.45, 0.8],
  "worn-brushes": [0.3, 2],
  low: [9.5, 11.3],
  "filter-blocked": [0.25, 0.6],
  loose: [0.35, 0.75],
  stuck: [0.1, 0.9],
};

/** A fault of the catalogue at a severity of its own. */
export function drawSeverity(netlist: Netlist, entry: CatalogueEntry, world: World, chance: Chance): Fault {
  const names = entry.fault.names.map((name): FaultName => {
    const range = severities[name.mode];
    if (!range || name.value === null) return name;
    let value = chance.logBetween(range[0], range[1]);
    if (name.mode === "high") value *= world.severity;
    if (name.mode === "tight") value = 1 + (value - 1) * world.severity;
    if (name.mode === "worn-brushes") value *= world.severity;
    return { ...name, value: Number(value.toPrecision(4)) };
  });
  const placed = placeFault(netlist, names);
  if (!placed.ok) throw new Error(`${faultId(names)}: ${placed.problems[0]?.message}`);
  return placed.value;
}

function drawValues(netlist: Netlist, world: World, chance: Chance): Values {
  const nominal = nominalValues(netlist);
  const spread = (half: number): number => 1 + chance.between(-half, half);
  const rest = chance.between(world.restVolts[0], world.restVolts[1]);
  return {
    ohms: Float64Array.from(netlist.branches, (branch) => {
      switch (branch.spread) {
        case "contact":
        case "source":
          return branch.ohms * Math.exp(chance.between(-world.contactSpread, world.contactSpread));
        case "winding":
          return branch.ohms;
        default:
          return branch.ohms * spread(world.elementSpread);
      }
    }),
    restVolts: rest,
    chargingVolts: chance.between(13.8, 14.5),
    motors: nominal.motors.map((motor) => ({
      ...motor,
      ohms: motor.ohms * spread(world.windingSpread),
      k: motor.k * spread(0.04),
      friction: motor.friction * chance.logBetween(world.friction[0], world.friction[1]),
      fan: motor.fan * spread(world.fanSpread),
    })),
    pullInVolts: nominal.pullInVolts.map((volts) => volts * spread(0.12)),
    dropOutVolts: nominal.dropOutVolts.map((volts) => volts * spread(0.15)),
    modules: nominal.modules.map((module) => {
      const span = 0.03 * (module.fullVolts - module.zeroVolts);
      return {
        ...module,
        zeroVolts: module.zeroVolts + span * chance.between(-1, 1),
        fullVolts: module.fullVolts + span * chance.between(-1, 1),
      };
    }),
    heads: nominal.heads.map((head) => ({ ...head, commandTimes: spread(0.02) })),
  };
}

export type AirflowWord = "none" | "weak" | "normal" | "strong";

/** A vehicle that is gone back to, look after look, by different visits. */
export interface Resumed {
  /** Chance of this look alone. */
  readonly chance: Chance;
  /** Chance of what stays as it is from one look to the next, by what it is of. */
  readonly lasting: (key: string) => Chance;
  readonly awoken: boolean;
}

export class SimulatedVehicle {
  private readonly solver: PointSolver;
  private readonly healthy: PointSolver;
  private readonly values: Values;
  private readonly nominal: Values;
  private readonly bright: number;
  private readonly dim: number;
  private readonly handBias: number;
  private readonly looks = new Map<string, string>();
  private awoken = false;

  /** @param chance draws the vehicle's own values here, and afterwards what each look adds of its own */
  constructor(
    readonly netlist: Netlist,
    readonly fault: Fault,
    private readonly world: World,
    private chance: Chance,
    private readonly resumed: Resumed | null = null,
  ) {
    this.solver = new PointSolver(netlist);
    this.healthy = new PointSolver(netlist);
    this.values = drawValues(netlist, world, chance);
    this.nominal = nominalValues(netlist);
    const around = ([mean, half]: readonly [number, number]): number => mean + chance.between(-half, half);
    this.bright = around(world.brightVolts);
    this.dim = around(world.dimVolts);
    this.handBias = Math.exp(chance.between(-0.1, 0.1));
    if (!resumed) return;
    this.chance = resumed.chance;
    this.awoken = resumed.awoken;
  }

  /** True once a knock has woken a dead spot for good. */
  get woken(): boolean {
    return this.awoken;
  }

  /** Changes that are there at this moment: a loose contact comes and goes, a woken dead spot is gone. */
  private present(): readonly Change[] {
    const { names, changes, presentShare } = this.fault;
    if (presentShare < 1) return this.chance.uniform() < presentShare ? changes : [];
    if (this.awoken && names.some(({ mode }) => mode === "dead-spot")) return [];
    return changes;
  }

  private speeds(setup: Setup, changes: readonly Change[], values: Values): readonly number[] {
    return [...this.solver.solve(values, setupState(this.netlist, setup), changes).speeds];
  }

  private flow(setup: Setup, motor: number): number {
    const changes = this.present();
    let times = 1;
    for (const change of changes)
      if (change.type === "airflow" && change.motor === motor) times *= change.times;
    return times * (this.speeds(setup, changes, this.values)[motor] ?? 0);
  }

  /** Strongest healthy speed of a motor. */
  private top(motor: number): number {
    const { settings, parts } = this.netlist.circuit;
    const own = parts.flatMap((part) =>
      part.kind === "selector" && part.settings
        ? part.settings.map((setting) => ({ [part.id]: setting }))
        : [],
    );
    const setups = [...settings.map((setting) => ({ setting })), ...own.map((selectors) => ({ selectors }))];
    return Math.max(
      ...setups.map((setup) => this.speeds({ key: "run", ...setup }, [], this.nominal)[motor] ?? 0),
    );
  }

  /** Turns a minute of the fastest motor now, for the ear. */
  rpm(setup: Setup): number {
    return rpmOf(Math.max(0, ...this.speeds(setup, this.present(), this.values)));
  }

  airflow(setup: Setup & { at?: string | undefined }): AirflowWord {
    const motor = Math.max(
      0,
      this.netlist.motors.findIndex(({ part }) => part.id === setup.at),
    );
    const healthy = this.healthy.solve(this.nominal, setupState(this.netlist, setup), []).speeds[motor] ?? 0;
    const top = this.top(motor);
    const error = Math.exp(this.chance.between(-this.world.handError, this.world.handError));
    const flow = this.flow(setup, motor) * this.handBias * error;
    if (healthy < 0.08 * top) {
      const share = flow / top;
      return share < 0.08 ? "none" : share < 0.5 ? "weak" : "strong";
    }
    const share = flow / healthy;
    if (share < 0.08) return "none";
    if (share < this.world.weakShare) return "weak";
    return share < 1.25 ? "normal" : "strong";
  }

  /**
   * What the customer says: every speed, key out, and what is heard, now and then wrongly; empty where
   * nothing is amiss.
   */
  complaint(): Reading[] {
    const { circuit, motors } = this.netlist;
    const [off = "off", ...speeds] = circuit.settings;
    let amiss = false;
    const word = (setup: Setup & { at?: string }): AirflowWord => {
      const seen = this.airflow(setup);
      if (seen !== this.expected(setup)) amiss = true;
      if (this.chance.uniform() >= this.world.heardSlip) return seen;
      return this.chance.pick(["none", "weak", "normal"] as const);
    };
    const readings: Reading[] = [off, ...speeds].map((setting) => ({
      test: "airflow",
      heard: true,
      key: "run",
      setting,
      seen: word({ key: "run", setting }),
    }));
    const top = speeds.at(-1) ?? off;
    readings.push({
      test: "airflow",
      heard: true,
      key: "off",
      setting: top,
      seen: word({ key: "off", setting: top }),
    });
    for (const part of circuit.parts) {
      if (part.kind !== "selector" || !part.settings) continue;
      for (const setting of part.settings.slice(1)) {
        const setup = {
          key: "run" as const,
          setting: off,
          selectors: { [part.id]: setting },
          at: motors.at(-1)?.part.id ?? "",
        };
        readings.push({ test: "airflow", heard: true, ...setup, seen: word(setup) });
      }
    }
    const noise = this.noise({ key: "run", setting: top });
    if (noise !== "quiet") {
      if (this.mechanical) amiss = true;
      readings.push({
        test: "listen",
        heard: true,
        key: "run",
        setting: top,
        seen: noise,
        followsSpeed: true,
      });
    }
    return amiss ? readings : [];
  }

  private expected(setup: Setup & { at?: string | undefined }): AirflowWord {
    const motor = Math.max(
      0,
      this.netlist.motors.findIndex(({ part }) => part.id === setup.at),
    );
    const healthy = this.healthy.solve(this.nominal, setupState(this.netlist, setup), []).speeds[motor] ?? 0;
    return healthy < 0.08 * this.top(motor) ? "none" : "normal";
  }

  private mode(...modes: string[]): boolean {
    return this.fault.names.some(({ mode }) => modes.includes(mode));
  }

  private noise(setup: Setup): "quiet" | "squeal" | "rumble" | "tick" | "whistle" {
    const { chance, world } = this;
    const runs =
      this.netlist.motors.some((_, motor) => this.flow(setup, motor) > 0.1 * this.top(motor)) ||
      this.mode("wheel-loose");
    const heard = chance.uniform() < world.senses;
    if (runs && heard) {
      if (this.mode("bearing-dry")) return chance.uniform() < 0.9 ? "squeal" : "whistle";
      if (this.mode("bearing-worn", "unbalanced")) return "rumble";
      if (this.mode("debris")) return "tick";
      if (this.mode("wheel-loose") && chance.uniform() < 0.5) return "tick";
      if (this.mode("tight") && chance.uniform() < 0.2) return "squeal";
    }
    return chance.uniform() < 0.04 && runs ? chance.pick(["squeal", "rumble", "tick"] as const) : "quiet";
  }

  /** Takes a look; now and then it slips. */
  take(look: Look): Reading {
    const reading = this.observe(look);
    if (this.chance.uniform() >= this.world.slip) return reading;
    return this.slipped(look, reading);
  }

  /** A slip: the light or the meter on another point, or another word written down. */
  private slipped(look: Look, reading: Reading): Reading {
    const { names } = this.netlist.points;
    if (look.test === "light")
      return { ...this.observe({ ...look, probe: this.chance.pick(names) }), probe: look.probe } as Reading;
    if (look.test === "volts")
      return { ...this.observe({ ...look, red: this.chance.pick(names) }), red: look.red } as Reading;
    if (reading.test === "ohms")
      return { ...reading, ohms: this.chance.uniform() < 0.5 ? null : this.chance.between(0, 5) };
    if (reading.test === "amps") return { ...reading, amps: this.chance.between(0, 25) };
    const words: Record<string, readonly string[]> = {
      airflow: ["none", "weak", "normal"],
      look: ["clean", "corroded", "melted", "wet"],
      spin: ["free", "rough", "stiff"],
      tap: ["changes", "nothing"],
      ripple: ["even", "uneven", "missing"],
      lampload: ["bright", "dim", "dark"],
      swap: ["fixed", "same"],
    };
    const choices = words[reading.test];
    return choices ? ({ ...reading, seen: this.chance.pick(choices) } as Reading) : reading;
  }

  private node(point: string): number {
    return this.netlist.nodeOf.get(point) ?? -1;
  }

  /** Open volts and ohms between two points at this moment, and whether something chatters meanwhile. */
  private between(setup: Setup, one: string, other: string): OpenCircuit & { readonly buzz: boolean } {
    const solved = this.solver.solve(this.values, setupState(this.netlist, setup), this.present());
    return {
      ...openCircuit(this.solver, solved, this.netlist, one, other),
      buzz: solved.buzzing.includes(1),
    };
  }

  private call(volts: number): "bright" | "dim" | "dark" {
    const seen = volts + this.chance.between(-0.4, 0.4);
    return seen > this.bright ? "bright" : seen > this.dim ? "dim" : "dark";
  }

  private observe(look: Look): Reading {
    const { chance, world, netlist } = this;
    switch (look.test) {
      case "airflow":
        return { ...look, seen: this.airflow(look) };
      case "light": {
        const { volts, ohms, buzz } = this.between(look, look.probe, look.clip);
        if (buzz && chance.uniform() < 0.85) return { ...look, seen: "flickers" };
        return { ...look, seen: this.call(lampVolts(testLight, volts, ohms)) };
      }
      case "volts": {
        const { volts } = this.between(look, look.red, look.black);
        const shown =
          volts * (1 + chance.between(-1, 1) * world.meterShare) + chance.between(-1, 1) * world.meterVolts;
        return { ...look, volts: Math.round(shown * 100) / 100 };
      }
      case "ohms": {
        this.solver.solve(this.values, setupState(netlist, look, true), this.present());
        const ohms = this.solver.ohmsBetween(this.node(look.red), this.node(look.black));
        if (!(ohms < 2e6)) return { ...look, ohms: null };
        const shown = ohms * (1 + chance.between(-0.01, 0.01)) + chance.between(0, 0.1);
        return { ...look, ohms: Math.round(shown * 100) / 100 };
      }
      case "amps": {
        const solved = this.solver.solve(this.values, setupState(netlist, look), this.present());
        const amps = solved.amps[netlist.branchOf.get(look.around) ?? -1] ?? 0;
        const shown =
          amps * (1 + chance.between(-1, 1) * world.clampShare) + chance.between(-1, 1) * world.clampAmps;
        return { ...look, amps: Math.round(shown * 10) / 10 };
      }
      case "lampload": {
        const ends = lampEnds(netlist, look.lampFor) ?? ["", ""];
        const { volts } = this.between(look, ends[0], ends[1]);
        return { ...look, seen: this.call(Math.abs(volts)) };
      }
      case "look":
        return { ...look, seen: this.once(`look ${look.at}`, () => this.eyes(look.at)) as "clean" };
      case "spin":
        return { ...look, seen: this.once(`spin ${look.at}`, () => this.hand(look.at)) as "free" };
      case "listen": {
        const seen = this.noise(look);
        return seen === "quiet"
          ? { ...look, seen }
          : { ...look, seen, followsSpeed: chance.uniform() < 0.85 };
      }
      case "smell":
        return { ...look, seen: this.once("smell", () => this.nose()) as "none" };
      case "history":
        return { ...look, seen: this.once(`history ${look.of}`, () => this.told(look.of)) as "no" };
      case "tap":
        return { ...look, seen: this.tap(look.at) };
      case "swap":
        return { ...look, seen: this.fault.parts.every((part) => part === look.at) ? "fixed" : "same" };
      case "ripple":
        return { ...look, seen: this.humps(look) };
    }
  }

  /** What does not change from one look to the next is drawn once. */
  private once(key: string, make: () => string): string {
    const known = this.looks.get(key);
    if (known !== undefined) return known;
    const own = this.chance;
    // A vehicle that is gone back to shows at a second look what it showed at the first.
    if (this.resumed) this.chance = this.resumed.lasting(key);
    const made = make();
    this.chance = own;
    this.looks.set(key, made);
    return made;
  }

  private eyes(at: string): string {
    const { chance, world, fault, netlist } = this;
    const index = fault.parts.indexOf(at);
    const name = fault.names[Math.max(0, index)];
    const part = netlist.circuit.parts.find(({ id }) => id === at);
    if (index >= 0 && name && chance.uniform() < world.senses) {
      const plug = !part || part.kind === "inline";
      if (plug && name.mode === "high") return chance.pick(["melted", "melted", "corroded"]);
      if (plug && name.mode === "open") return chance.pick(["melted", "corroded", "clean"]);
      if (part?.kind === "fuse" && name.mode === "blown") return "blown";
      if (part?.kind === "ground") return chance.pick(["corroded", "corroded", "clean"]);
      if (part?.kind === "resistor" && name.mode === "open") return chance.pick(["melted", "clean", "clean"]);
      if (part?.kind === "module") return chance.pick(["wet", "melted", "clean", "clean"]);
      if (name.mode === "debris" || name.mode === "filter-blocked") return "debris";
    }
    return chance.uniform() < 0.06 ? chance.pick(["corroded", "wet", "debris", "melted"]) : "clean";
  }

  private hand(at: string): string {
    const { chance, world } = this;
    if (this.fault.parts.includes(at) && this.mode("seized"))
      return chance.uniform() < 0.97 ? "seized" : "stiff";
    if (this.fault.parts.includes(at) && chance.uniform() < 0.25 + 0.75 * world.senses) {
      if (this.mode("tight")) return chance.uniform() < 0.85 ? "stiff" : "rough";
      if (this.mode("bearing-dry")) return chance.pick(["stiff", "stiff", "rough", "free"]);
      if (this.mode("debris", "bearing-worn")) return chance.uniform() < 0.8 ? "rough" : "free";
    }
    return chance.uniform() < 0.05 ? "rough" : "free";
  }

  private nose(): string {
    const { chance, world } = this;
    if (this.mode("tight", "seized", "shorted-turns") && chance.uniform() < 0.5 * world.senses)
      return "burnt";
    if (this.mode("filter-blocked") && chance.uniform() < 0.4 * world.senses) return "musty";
    return chance.uniform() < 0.08 ? chance.pick(["burnt", "musty"]) : "none";
  }

  private told(of: string): string {
    const { chance, world } = this;
    const loose = this.mode("loose", "dead-spot");
    if ((of === "bumps" || of === "heat") && loose && chance.uniform() < 0.6 * world.senses) return "yes";
    if (of === "damp" && this.mode("dead", "full-on", "high") && chance.uniform() < 0.3 * world.senses)
      return "yes";
    if (of === "recent-work" && world.recentWork) return "yes";
    if (of === "recent-work" && loose && chance.uniform() < 0.3) return "yes";
    return chance.uniform() < 0.09 ? "yes" : "no";
  }

  private tap(at: string): "starts" | "changes" | "nothing" {
    const { chance, fault } = this;
    if (fault.parts.includes(at)) {
      if (this.mode("dead-spot") && chance.uniform() < 0.75) {
        this.awoken = chance.uniform() < 0.5;
        return "starts";
      }
      if (this.mode("loose") && chance.uniform() < 0.65) return chance.pick(["starts", "changes"] as const);
    }
    return chance.uniform() < 0.03 ? "changes" : "nothing";
  }

  private humps(look: Look & { test: "ripple" }): "even" | "uneven" | "missing" {
    const { chance, netlist } = this;
    const solved = this.solver.solve(this.values, setupState(netlist, look), this.present());
    const amps = Math.abs(solved.amps[netlist.branchOf.get(look.at) ?? -1] ?? 0);
    if (amps < 0.5) return "missing";
    if (this.fault.parts.includes(look.at)) {
      if (this.mode("worn-brushes", "shorted-turns")) return chance.uniform() < 0.85 ? "uneven" : "even";
      if (this.mode("seized")) return "missing";
    }
    return chance.uniform() < 0.05 ? "uneven" : "even";
  }

  /** Whether the fault is one of noise or feel alone. */
  get mechanical(): boolean {
    return this.fault.names.some(({ mode }) => mode in mechanicalModes);
  }
}
