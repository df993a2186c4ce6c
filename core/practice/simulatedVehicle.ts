// A simulated vehicle with a hidden fault, and the technician's instruments on it. It solves the exact netlist (the
// engine's has its wires lumped) with its own sampled part values, and judges with its own tables.

import type { Chance } from "../chance/chance";
import type { Fault } from "../fault/fault";
import type { Noise } from "../motor/mechanicalMode";
import { rpmOf } from "../motor/motorConstants";
import type { Pattern } from "../predict/moment";
import { observationOf } from "../predict/observations/index";
import type { TestedVehicle } from "../predict/observations/testedVehicle";
import { type Reading, readingSchema, type Test } from "../predict/reading";
import { testAsTouched } from "../predict/touchedTest";
import type { Change } from "../solve/netlist/change";
import type { Netlist } from "../solve/netlist/netlist";
import { lampEnds, type Setup, setupState } from "../solve/netlist/setup";
import { nominalValues, type Values } from "../solve/netlist/values";
import { type OpenCircuit, openCircuit } from "../solve/openCircuit";
import { PointSolver } from "../solve/pointSolver";
import { FaultSigns } from "./faultSigns";
import { type FaultBehaviour, patternTold, plainBehaviour, variesInTime } from "./hiddenFault";
import { sampleValues } from "./sampledVehicle";
import type { World } from "./world";

export type AirflowWord = "none" | "weak" | "normal" | "strong";

/** A vehicle that is tested on several visits. */
export interface Resumed {
  /** Random source of this test alone. */
  readonly chance: Chance;
  /** Random source of what stays the same from one test to the next, by subject. */
  readonly lasting: (key: string) => Chance;
  readonly awoken: boolean;
}

export class SimulatedVehicle implements TestedVehicle {
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
  /** Whether a fault that comes and goes is there during the present test; null to draw it each time. */
  private there: boolean | null = null;
  private source: Chance;

  /** @param source samples the vehicle's own values here, and later the noise of each test */
  constructor(
    readonly netlist: Netlist,
    readonly fault: Fault,
    private readonly world: World,
    source: Chance,
    private readonly resumed: Resumed | null = null,
    private readonly behaviour: FaultBehaviour = plainBehaviour,
  ) {
    this.signs = new FaultSigns(netlist, fault, world, behaviour);
    this.solver = new PointSolver(netlist);
    this.healthy = new PointSolver(netlist);
    this.source = source;
    this.values = sampleValues(netlist, world, source);
    this.nominal = nominalValues(netlist);
    const around = ([mean, half]: readonly [number, number]): number => mean + source.between(-half, half);
    this.bright = around(world.brightVolts);
    this.dim = around(world.dimVolts);
    this.handBias = Math.exp(source.between(-0.1, 0.1));
    if (!resumed) return;
    this.source = resumed.chance;
    this.awoken = resumed.awoken;
  }

  /** The random source at this moment. */
  get chance(): Chance {
    return this.source;
  }

  get flickerShare(): number {
    return this.world.flickerShare;
  }

  /** True once a knock has freed a dead spot for good. */
  get woken(): boolean {
    return this.awoken;
  }

  /** Changes present at this moment: a loose contact comes and goes, a freed dead spot is gone. */
  private present(): readonly Change[] {
    const { names, changes, presentShare } = this.fault;
    if (this.awoken && names.some(({ mode }) => mode === "dead-spot")) return [];
    const there = this.there ?? (presentShare === 1 || this.chance.uniform() < presentShare);
    return there ? changes : [];
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

  /** A motor's highest healthy speed. */
  private top(motor: number): number {
    const { settings, parts } = this.netlist.circuit;
    const own = parts.flatMap((part) =>
      part.kind === "selector" && part.settings
        ? part.settings.map((setting) => ({ [part.id]: setting }))
        : [],
    );
    const setups = [...settings.map((setting) => ({ setting })), ...own.map((selectors) => ({ selectors }))];
    return Math.max(
      ...setups.map(
        (setup) =>
          this.healthy.solve(this.nominal, setupState(this.netlist, { key: "run", ...setup }), []).speeds[
            motor
          ] ?? 0,
      ),
    );
  }

  /** Rpm of the fastest motor now, for the sound. */
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

  /** What the customer says: every speed, key out, and any noise, sometimes wrongly; empty if nothing is wrong. */
  complaint(): Reading[] {
    const { circuit, motors } = this.netlist;
    const { fault, behaviour, chance, world } = this;
    const [off = "off", ...speeds] = circuit.settings;
    const varies = variesInTime(fault, behaviour) && chance.uniform() < world.timeSaid;
    const pattern = varies ? { pattern: patternTold(fault, behaviour, chance) } : {};
    // A customer who says that it comes and goes tells what it does while it fails.
    this.there = varies ? true : null;
    let amiss = false;
    const told = (setup: Setup & { at?: string }): { seen: AirflowWord; pattern?: Pattern } => {
      const seen = this.airflow(setup);
      const wrong = seen !== this.expected(setup);
      if (wrong) amiss = true;
      if (chance.uniform() < world.heardSlip)
        return { seen: chance.pick(["none", "weak", "normal"] as const) };
      return wrong ? { seen, ...pattern } : { seen };
    };
    const readings: Reading[] = [off, ...speeds].map((setting) => ({
      test: "airflow",
      heard: true,
      key: "run",
      setting,
      ...told({ key: "run", setting }),
    }));
    const top = speeds.at(-1) ?? off;
    readings.push({
      test: "airflow",
      heard: true,
      key: "off",
      setting: top,
      ...told({ key: "off", setting: top }),
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
        readings.push({ test: "airflow", heard: true, ...setup, ...told(setup) });
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
    this.there = null;
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

  noise(setup: Setup & { ventCovered?: boolean | undefined }): Noise {
    const turns = this.netlist.motors.some((_, motor) => this.flow(setup, motor) > 0.1 * this.top(motor));
    return this.signs.noise(turns, this.chance, setup.ventCovered);
  }

  /** Takes a test; sometimes the technician slips. */
  take(test: Test): Reading {
    const { fault, behaviour, chance } = this;
    const { realHands, slip, timeSaid, whileFailing } = this.world;
    if (variesInTime(fault, behaviour))
      this.there =
        chance.uniform() < (behaviour.waitsFor || timeSaid > 0 ? whileFailing : fault.presentShare);
    const done = realHands ? testAsTouched(this.netlist, test) : test;
    const observation = observationOf(test.test);
    const seen = observation.simulate(this, done, slip);
    const state = observation.form.setup === "none" ? {} : this.stateSaid();
    this.there = null;
    // What is written down names the points the technician was sent to.
    return readingSchema.parse({ ...seen, ...state, ...test });
  }

  /** What the technician says of the moment of a test. */
  private stateSaid(): { state?: "failing" | "working" } {
    const { there, chance, world } = this;
    if (there === null || chance.uniform() >= world.timeSaid) return {};
    const right = chance.uniform() < world.timeRight;
    return { state: there === right ? "failing" : "working" };
  }

  get points(): readonly string[] {
    return this.netlist.points.names;
  }

  between(setup: Setup, one: string, other: string): OpenCircuit & { readonly buzz: boolean } {
    const solved = this.solver.solve(this.values, setupState(this.netlist, setup), this.present());
    return {
      ...openCircuit(this.solver, solved, this.netlist, one, other),
      buzz: solved.buzzing.includes(1),
    };
  }

  lampWord(volts: number): "bright" | "dim" | "dark" {
    const seen = volts + this.chance.between(-0.4, 0.4);
    return seen > this.bright ? "bright" : seen > this.dim ? "dim" : "dark";
  }

  lampEnds(part: string): readonly [string, string] {
    return lampEnds(this.netlist, part) ?? ["", ""];
  }

  shownVolts(volts: number): number {
    const { chance, world } = this;
    return volts * (1 + chance.between(-1, 1) * world.meterShare) + chance.between(-1, 1) * world.meterVolts;
  }

  ohmsBetween(setup: Setup, one: string, other: string): number {
    this.solver.solve(this.values, setupState(this.netlist, setup, true), this.present());
    const node = (point: string): number => this.netlist.nodeOf.get(point) ?? -1;
    return this.solver.ohmsBetween(node(one), node(other));
  }

  ampsThrough(setup: Setup, id: string): number {
    const solved = this.solver.solve(this.values, setupState(this.netlist, setup), this.present());
    return solved.amps[this.netlist.branchOf.get(id) ?? -1] ?? 0;
  }

  shownAmps(amps: number): number {
    const { chance, world } = this;
    return amps * (1 + chance.between(-1, 1) * world.clampShare) + chance.between(-1, 1) * world.clampAmps;
  }

  eyes(at: string): string {
    return this.once(`look ${at}`, () => this.signs.eyes(at, this.chance));
  }

  hand(at: string): string {
    return this.once(`spin ${at}`, () => this.signs.hand(at, this.chance));
  }

  nose(): string {
    return this.once("smell", () => this.signs.nose(this.chance));
  }

  told(of: string): string {
    return this.once(`history ${of}`, () => this.signs.told(of, this.chance));
  }

  failedAlone(part: string): boolean {
    return this.fault.parts.every((failed) => failed === part);
  }

  /** What does not change between tests is sampled once. */
  private once(key: string, make: () => string): string {
    const known = this.looks.get(key);
    if (known !== undefined) return known;
    const own = this.source;
    // On later visits a vehicle shows the same at a second inspection as at the first.
    if (this.resumed) this.source = this.resumed.lasting(key);
    const made = make();
    this.source = own;
    this.looks.set(key, made);
    return made;
  }

  tap(at: string): "starts" | "changes" | "nothing" {
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

  ripple(setup: Setup, at: string): "even" | "uneven" | "missing" {
    const { chance } = this;
    const amps = Math.abs(this.ampsThrough(setup, at));
    if (amps < 0.5) return "missing";
    if (this.fault.parts.includes(at)) {
      if (this.signs.has("worn-brushes", "shorted-turns")) return chance.uniform() < 0.85 ? "uneven" : "even";
      if (this.signs.has("seized")) return "missing";
    }
    return chance.uniform() < 0.05 ? "uneven" : "even";
  }

  /** Whether the fault affects only noise or feel. */
  get mechanical(): boolean {
    return this.signs.mechanical;
  }
}
