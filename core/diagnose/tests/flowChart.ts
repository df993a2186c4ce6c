import type { Reading, Test } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { lampEnds, setupState } from "../../solve/netlist/setup";
import { nominalValues } from "../../solve/netlist/values";
import { type OpenCircuit, openCircuit } from "../../solve/openCircuit";
import { operatingPoint } from "../../solve/operatingPoint";
import { PointSolver } from "../../solve/pointSolver";
import { lampVolts, lampWord, testLight } from "../../solve/tungstenLamp";
import { expectedReading } from "../explain/expectation";
import { openPlaces, testMinutes } from "./access";

/** Instruments on a vehicle: what a test shows there. */
export interface Instruments {
  take(test: Test): Reading;
}

/** Where a fixed flow chart ends. */
export interface ChartResult {
  readonly replace: string;
  readonly looks: number;
  readonly minutes: number;
  /** The complaint and every test taken. */
  readonly readings: readonly Reading[];
}

type Heard = Extract<Reading, { test: "airflow" }>;

const speedsHeard = (complaint: readonly Reading[]): Heard[] =>
  complaint.filter(
    (reading): reading is Heard => reading.test === "airflow" && reading.key === "run" && !reading.selectors,
  );

/** The part that usually causes such a complaint. */
export function swapBySymptom(compiled: CompiledCircuit, complaint: readonly Reading[]): string {
  const { circuit } = compiled.netlist;
  const first = (kind: string): string | undefined => circuit.parts.find((part) => part.kind === kind)?.id;
  const [off, ...speeds] = speedsHeard(complaint);
  const stray = complaint.some(
    (reading) => reading.test === "airflow" && reading.key === "off" && reading.seen !== "none",
  );
  if (stray || (off && off.seen !== "none")) return first("module") ?? first("relay") ?? first("motor") ?? "";
  const dead = speeds.filter(({ seen }) => seen === "none");
  if (dead.length > 0 && dead.length < speeds.length) return first("resistor") ?? first("module") ?? "";
  return first("motor") ?? "";
}

/**
 * Works through the flow chart of docs/fleet.md on a vehicle: the fixed order of the trade's printed charts.
 * @param complaint airflow by speed, as the customer says
 */
export function followChart(
  compiled: CompiledCircuit,
  vehicle: Instruments,
  complaint: readonly Reading[],
): ChartResult {
  const chart = new FlowChart(compiled, vehicle, complaint);
  const replace = chart.run();
  return {
    replace,
    looks: chart.readings.length - complaint.length,
    minutes: chart.minutes,
    readings: chart.readings,
  };
}

/** Minutes the chart takes to reach a known fault in the nominal vehicle; null if it ends at another part. */
export function chartMinutes(
  compiled: CompiledCircuit,
  complaint: readonly Reading[],
  variant: number,
): number | null {
  const { replace, minutes } = followChart(
    compiled,
    { take: (test) => expectedReading(compiled, test, variant) },
    complaint,
  );
  return compiled.variants[variant]?.fault.parts.includes(replace) ? minutes : null;
}

class FlowChart {
  readonly readings: Reading[];
  minutes = 0;
  private firstWrong: string | null = null;
  private readonly solver: PointSolver;

  constructor(
    private readonly compiled: CompiledCircuit,
    private readonly vehicle: Instruments,
    complaint: readonly Reading[],
  ) {
    this.readings = [...complaint];
    this.solver = new PointSolver(compiled.netlist);
  }

  private take(test: Test): Reading {
    this.minutes += testMinutes(this.compiled, test, openPlaces(this.compiled, this.readings));
    const reading = this.vehicle.take(test);
    this.readings.push(reading);
    return reading;
  }

  /** Open-circuit volts and series ohms between two points of a healthy vehicle. */
  private sound(test: Test, one: string, other: string): OpenCircuit {
    const { netlist } = this.compiled;
    const solved = this.solver.solve(nominalValues(netlist), setupState(netlist, test), []);
    return openCircuit(this.solver, solved, netlist, one, other);
  }

  /** Takes a light reading; true if it is as on a healthy vehicle. */
  private lightRight(probe: string, clip: "+" | "-", setting: string): boolean {
    const { id } = this.compiled.netlist.battery;
    const test: Test = { test: "light", probe, clip: `${id}.${clip}`, key: "run", setting };
    const { volts, ohms } = this.sound(test, probe, test.clip);
    const expected = lampWord(lampVolts(testLight, volts, ohms));
    const reading = this.take(test);
    const right = reading.test === "light" && reading.seen === expected;
    if (!right) this.firstWrong ??= this.compiled.netlist.points.ownerOf.get(probe) ?? null;
    return right;
  }

  private plugged(terminal: string): string {
    return this.compiled.netlist.points.pinOnTerminal.get(terminal) ?? terminal;
  }

  run(): string {
    const { circuit, motors } = this.compiled.netlist;
    const speeds = speedsHeard(this.readings);
    const wrong = speeds.filter(({ seen }, index) => (index === 0 ? seen !== "none" : seen !== "normal"));
    const setting = wrong.at(-1)?.setting ?? circuit.settings.at(-1) ?? "off";
    const motor = motors[0]?.part.id ?? "";
    const battery = this.compiled.netlist.battery.id;
    for (const { id, kind } of circuit.parts) {
      if (kind !== "fuse") continue;
      if (this.lightRight(`${id}.in`, "-", setting) && !this.lightRight(`${id}.out`, "-", setting)) return id;
    }
    for (const { id, kind } of circuit.parts) {
      if (kind !== "relay") continue;
      const at = (terminal: string): string => this.plugged(`${id}.${terminal}`);
      const fed = this.lightRight(at("30"), "-", setting);
      const coil = this.lightRight(at("86"), "-", setting) && this.lightRight(at("85"), "+", setting);
      const out = this.lightRight(at("87"), "-", setting);
      if (fed && coil && !out) return id;
      if (!coil) return this.wireAt(`${id}.86`);
    }
    const [plus, minus] = [this.plugged(`${motor}.+`), this.plugged(`${motor}.-`)];
    const feedRight = this.lightRight(plus, "-", setting);
    const groundRight = this.lightRight(minus, "+", setting);
    if (feedRight && groundRight) return motor;
    for (const part of circuit.parts) {
      if (part.kind !== "selector" || part.settings) continue;
      const common = this.plugged(`${part.id}.${part.common}`);
      const clip = feedRight ? "+" : "-";
      for (const { setting: speed = "" } of wrong) {
        const [output] = part.closes[speed] ?? [];
        if (!output || !this.lightRight(common, clip, speed)) continue;
        if (!this.lightRight(this.plugged(`${part.id}.${output}`), clip, speed)) return part.id;
      }
    }
    const pack = this.packWrong();
    if (pack) return pack;
    const control = circuit.parts.find(({ kind }) => kind === "module");
    if (control) return this.controlWrong(control.id, motor, setting, battery);
    return this.firstWrong ?? motor;
  }

  private wireAt(terminal: string): string {
    return (
      this.compiled.netlist.circuit.wires.find(({ from, to }) => from === terminal || to === terminal)?.id ??
      ""
    );
  }

  private packWrong(): string | null {
    const { circuit } = this.compiled.netlist;
    for (const part of circuit.parts) {
      if (part.kind !== "resistor") continue;
      const plug = circuit.connectors.find(({ pins }) =>
        Object.values(pins).some((pin) => pin.startsWith(`${part.id}.`)),
      );
      const pins = plug ? Object.values(plug.pins) : [];
      for (let i = 1; plug && i < pins.length; i++) {
        const [red = "", black = ""] = [pins[i - 1], pins[i]];
        const test: Test = { test: "ohms", red, black, unplugged: [plug.id] };
        const { netlist } = this.compiled;
        this.solver.solve(nominalValues(netlist), setupState(netlist, test, true), []);
        const expected = this.solver.ohmsBetween(
          netlist.nodeOf.get(red) ?? -1,
          netlist.nodeOf.get(black) ?? -1,
        );
        const reading = this.take(test);
        if (reading.test !== "ohms") continue;
        if (reading.ohms === null || Math.abs(reading.ohms - expected) > 0.25 * expected + 0.15)
          return part.id;
      }
    }
    return null;
  }

  private controlWrong(control: string, motor: string, setting: string, battery: string): string {
    const { netlist } = this.compiled;
    const lampLook: Test = { test: "lampload", lampFor: motor, key: "run", setting };
    const ends = lampEnds(netlist, motor) ?? ["", ""];
    const lamp = this.take(lampLook);
    const healthy = operatingPoint(netlist, { key: "run", setting, lampFor: motor });
    const volts = Math.abs((healthy.volts[ends[0]] ?? 0) - (healthy.volts[ends[1]] ?? 0));
    const expected = lampWord(volts);
    if (lamp.test === "lampload" && lamp.seen === expected) return motor;
    const command = this.plugged(`${control}.cmd`);
    const test: Test = { test: "volts", red: command, black: `${battery}.-`, key: "run", setting };
    const reading = this.take(test);
    const asked = this.sound(test, command, `${battery}.-`).volts;
    const panel = netlist.circuit.parts.find(({ kind }) => kind === "head")?.id;
    if (panel && reading.test === "volts" && Math.abs(reading.volts - asked) > 0.5) return panel;
    const fed = this.lightRight(this.plugged(`${control}.30`), "-", setting);
    const grounded = this.lightRight(this.plugged(`${control}.31`), "+", setting);
    return fed && grounded ? control : (this.firstWrong ?? control);
  }
}
