// A simulated vehicle with a hidden fault, and the technician's instruments on it. It solves the exact
// netlist (the engine's has its wires lumped) with part values drawn here, and judges with its own tables.

import type { Chance } from "../chance/chance";
import type { Fault } from "../fault/fault";
import { rpmOf } from "../motor/motorConstants";
import type { Reading, Test } from "../predict/reading";
import type { Change } from "../solve/netlist/change";
import type { Netlist } from "../solve/netlist/netlist";
import { lampEnds, type Setup, setupState } from "../solve/netlist/setup";
import { nominalValues, type Values } from "../solve/netlist/values";
import { type OpenCircuit, openCircuit } from "../solve/openCircuit";
import { PointSolver } from "../solve/pointSolver";
import { lampVolts, testLight } from "../solve/tungstenLamp";
import { FaultSigns, type Noise } from "./faultSigns";
import { sampleValues } from "./sampledVehicle";
import type { World } from "./world";

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
  private readonly signs: FaultSigns;
  private awoken = false;

  /** @param chance draws the vehicle's own values here, and afterwards what each look adds of its own */
  constructor(
    readonly netlist: Netlist,
    readonly fault: Fault,
    private readonly world: World,
    private chance: Chance,
    private readonly resumed: Resumed | null = null,
  ) {
    this.signs = new FaultSigns(netlist, fault, world);
    this.solver = new PointSolver(netlist);
    this.healthy = new PointSolver(netlist);
    this.values = sampleValues(netlist, world, chance);
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

  private noise(setup: Setup): Noise {
    const turns = this.netlist.motors.some((_, motor) => this.flow(setup, motor) > 0.1 * this.top(motor));
    return this.signs.noise(turns, this.chance);
  }

  /** Takes a look; now and then it slips. */
  take(test: Test): Reading {
    const reading = this.observe(test);
    if (this.chance.uniform() >= this.world.slip) return reading;
    return this.slipped(test, reading);
  }

  /** A slip: the light or the meter on another point, or another word written down. */
  private slipped(test: Test, reading: Reading): Reading {
    const { names } = this.netlist.points;
    if (test.test === "light")
      return { ...this.observe({ ...test, probe: this.chance.pick(names) }), probe: test.probe } as Reading;
    if (test.test === "volts")
      return { ...this.observe({ ...test, red: this.chance.pick(names) }), red: test.red } as Reading;
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

  private observe(test: Test): Reading {
    const { chance, world, netlist } = this;
    switch (test.test) {
      case "airflow":
        return { ...test, seen: this.airflow(test) };
      case "light": {
        const { volts, ohms, buzz } = this.between(test, test.probe, test.clip);
        if (buzz && chance.uniform() < 0.85) return { ...test, seen: "flickers" };
        return { ...test, seen: this.call(lampVolts(testLight, volts, ohms)) };
      }
      case "volts": {
        const { volts } = this.between(test, test.red, test.black);
        const shown =
          volts * (1 + chance.between(-1, 1) * world.meterShare) + chance.between(-1, 1) * world.meterVolts;
        return { ...test, volts: Math.round(shown * 100) / 100 };
      }
      case "ohms": {
        this.solver.solve(this.values, setupState(netlist, test, true), this.present());
        const ohms = this.solver.ohmsBetween(this.node(test.red), this.node(test.black));
        if (!(ohms < 2e6)) return { ...test, ohms: null };
        const shown = ohms * (1 + chance.between(-0.01, 0.01)) + chance.between(0, 0.1);
        return { ...test, ohms: Math.round(shown * 100) / 100 };
      }
      case "amps": {
        const solved = this.solver.solve(this.values, setupState(netlist, test), this.present());
        const amps = solved.amps[netlist.branchOf.get(test.around) ?? -1] ?? 0;
        const shown =
          amps * (1 + chance.between(-1, 1) * world.clampShare) + chance.between(-1, 1) * world.clampAmps;
        return { ...test, amps: Math.round(shown * 10) / 10 };
      }
      case "lampload": {
        const ends = lampEnds(netlist, test.lampFor) ?? ["", ""];
        const { volts } = this.between(test, ends[0], ends[1]);
        return { ...test, seen: this.call(Math.abs(volts)) };
      }
      case "look":
        return {
          ...test,
          seen: this.once(`look ${test.at}`, () => this.signs.eyes(test.at, this.chance)) as "clean",
        };
      case "spin":
        return {
          ...test,
          seen: this.once(`spin ${test.at}`, () => this.signs.hand(test.at, this.chance)) as "free",
        };
      case "listen": {
        const seen = this.noise(test);
        return seen === "quiet"
          ? { ...test, seen }
          : { ...test, seen, followsSpeed: chance.uniform() < 0.85 };
      }
      case "smell":
        return { ...test, seen: this.once("smell", () => this.signs.nose(this.chance)) as "none" };
      case "history":
        return {
          ...test,
          seen: this.once(`history ${test.of}`, () => this.signs.told(test.of, this.chance)) as "no",
        };
      case "tap":
        return { ...test, seen: this.tap(test.at) };
      case "swap":
        return { ...test, seen: this.fault.parts.every((part) => part === test.at) ? "fixed" : "same" };
      case "ripple":
        return { ...test, seen: this.humps(test) };
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

  private tap(at: string): "starts" | "changes" | "nothing" {
    const { chance, fault } = this;
    if (fault.parts.includes(at)) {
      if (this.signs.has("dead-spot") && chance.uniform() < 0.75) {
        this.awoken = chance.uniform() < 0.5;
        return "starts";
      }
      if (this.signs.has("loose") && chance.uniform() < 0.65)
        return chance.pick(["starts", "changes"] as const);
    }
    return chance.uniform() < 0.03 ? "changes" : "nothing";
  }

  private humps(test: Test & { test: "ripple" }): "even" | "uneven" | "missing" {
    const { chance, netlist } = this;
    const solved = this.solver.solve(this.values, setupState(netlist, test), this.present());
    const amps = Math.abs(solved.amps[netlist.branchOf.get(test.at) ?? -1] ?? 0);
    if (amps < 0.5) return "missing";
    if (this.fault.parts.includes(test.at)) {
      if (this.signs.has("worn-brushes", "shorted-turns")) return chance.uniform() < 0.85 ? "uneven" : "even";
      if (this.signs.has("seized")) return "missing";
    }
    return chance.uniform() < 0.05 ? "uneven" : "even";
  }

  /** Whether the fault is one of noise or feel alone. */
  get mechanical(): boolean {
    return this.signs.mechanical;
  }
}
