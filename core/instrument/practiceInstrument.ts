import { randomSource } from "../chance/randomSource";
import { humpsPerTurn } from "../motor/commutator";
import { changedMotor, motorConstants } from "../motor/motorConstants";
import type { CurrentRecording } from "../signal/currentRecording";
import type { Change } from "../solve/netlist/change";
import type { Netlist } from "../solve/netlist/netlist";
import { type Setup, setupProblems, setupState } from "../solve/netlist/setup";
import { nominalValues } from "../solve/netlist/values";
import { PointSolver } from "../solve/pointSolver";
import { definiteBlock, type ScpiCommand, ScpiDevice, ScpiError } from "./scpi";
import { simulatedRecording } from "./windingModel";

/** A simulated vehicle with a fault, and the meter, clamp and scope on it. */
export interface PracticeVehicle {
  readonly netlist: Netlist;
  readonly changes: readonly Change[];
  /** Ids of the faults, for effects that only show at the brushes. */
  readonly modes: readonly string[];
  readonly seed?: number;
}

const meterShare = 0.002;
const meterVolts = 0.008;
const clampShare = 0.01;
const clampAmps = 0.08;
const usualBars = 12;
const mostTraceSamples = 2_000_000;
/** Contact resistance of a worn commutator's worst bars, in ohms (judgement, no source). */
const wornBarOhms = 0.12;
const choppingHz = 18_000;

/**
 * The instruments of a practice bench. They read the operating point of the faulty circuit with a real instrument's
 * error, and make the motor's current recording from its winding.
 */
export class PracticeInstrument {
  private readonly solver: PointSolver;
  private readonly normal: () => number;
  private setup: Setup;
  private red: string;
  private black: string;
  private around: string;
  private taken = 0;
  readonly device: ScpiDevice;

  constructor(private readonly vehicle: PracticeVehicle) {
    this.solver = new PointSolver(vehicle.netlist);
    this.normal = randomSource(vehicle.seed ?? 1).normal;
    const { circuit, motors, battery } = vehicle.netlist;
    const motor = motors[0]?.part.id ?? "";
    const start = (): void => {
      this.setup = { key: "run", setting: circuit.settings.at(-1) ?? "off" };
      [this.red, this.black, this.around] = [`${motor}.+`, `${battery.id}.-`, motor];
    };
    [this.setup, this.red, this.black, this.around] = [{}, "", "", ""];
    start();
    this.device = new ScpiDevice("Airway,Practice instrument,0,1", start, this.commands());
  }

  /** The present leads, clamp and set-up. */
  standing() {
    return { setup: this.setup, red: this.red, black: this.black, around: this.around };
  }

  /**
   * Sets the vehicle up.
   * @throws ScpiError if the set-up is not possible
   */
  set(change: Setup): void {
    const setup = { ...this.setup, ...change };
    const [problem] = setupProblems(this.vehicle.netlist, setup);
    if (problem) throw new ScpiError(-224, `Illegal parameter value; ${problem.message}`);
    this.setup = setup;
  }

  private solved() {
    const { netlist, changes } = this.vehicle;
    return this.solver.solve(nominalValues(netlist), setupState(netlist, this.setup), changes);
  }

  /** Volts between the leads, as a meter shows them. */
  volts(): number {
    const { volts, floating } = this.solved();
    const at = (name: string): number => {
      const node = this.vehicle.netlist.nodeOf.get(name) ?? -1;
      return node < 0 ? 0 : floating[node] === 1 ? Number.NaN : (volts[node] as number);
    };
    const between = at(this.red) - at(this.black);
    const exact = Number.isNaN(between) ? 0 : between;
    return exact + (meterShare * Math.abs(exact) + meterVolts) * 0.5 * this.normal();
  }

  /** Amps in the clamp. */
  amps(): number {
    const exact = this.solved().amps[this.vehicle.netlist.branchOf.get(this.around) ?? -1] ?? 0;
    return exact + (clampShare * Math.abs(exact) + clampAmps) * 0.5 * this.normal();
  }

  /** The motor's current on the scope. */
  trace(rateHz: number, seconds: number): CurrentRecording {
    const { netlist, changes, modes } = this.vehicle;
    const motor = netlist.motors.findIndex(({ part }) => part.id === this.around);
    const found = netlist.motors[motor < 0 ? 0 : motor];
    if (!found) throw new ScpiError(-221, "Settings conflict; there is no motor");
    const state = this.solved();
    const amps = state.amps[found.branch] ?? 0;
    const { part } = found;
    const constants = changes.reduce(
      (own, change) =>
        change.type === "motor" && netlist.motors[change.motor] === found
          ? changedMotor(own, part, change.change)
          : own,
      motorConstants(part),
    );
    const volts = amps * constants.ohms + constants.k * (state.speeds[Math.max(0, motor)] ?? 0);
    const bars = part.commutatorBars ?? usualBars;
    const poles = 2 * (part.polePairs ?? 1);
    const worn = modes.some((mode) => mode === "worn-brushes");
    const shorted = modes.some((mode) => mode === "shorted-turns" || mode === "dead-spot");
    const rough = modes.some((mode) => ["tight", "debris", "bearing-worn", "unbalanced"].includes(mode));
    const badBars = worn
      ? [1, Math.floor(bars / 3), Math.floor((2 * bars) / 3)].map((bar) => ({ bar, ohms: wornBarOhms }))
      : shorted
        ? [{ bar: 2, ohms: 4 * wornBarOhms }]
        : [];
    const chopped = netlist.modules.some(({ part: module }) => module.drive === "pwm");
    const supply = netlist.circuit.parts.find((own) => own.kind === "battery")?.restVolts ?? volts;
    const duty = Math.min(0.98, Math.max(0.05, volts / supply));
    this.taken += 1;
    const perHump = humpsPerTurn(bars, poles);
    return simulatedRecording(
      { constants, bars, poles, badBars, wanderShare: rough ? 0.25 : 0.03 },
      {
        rateHz,
        seconds,
        volts: chopped ? volts / duty : volts,
        ...(chopped ? { chopping: { hz: choppingHz, duty } } : {}),
        driftShare: 0.004,
        jitterShare: 0.2 / perHump,
        noiseAmps: 0.02,
        seed: (this.vehicle.seed ?? 1) * 101 + this.taken,
      },
    );
  }

  private commands(): ScpiCommand[] {
    const { netlist } = this.vehicle;
    const point = (name: string | undefined): string => {
      if (name === undefined) throw new ScpiError(-109, "Missing parameter");
      if (!netlist.nodeOf.has(name)) throw new ScpiError(-224, `Illegal parameter value; no point ${name}`);
      return name;
    };
    const number = (text: string | undefined, low: number, high: number, usual: number): number => {
      if (text === undefined) return usual;
      const value = Number(text);
      if (!(value >= low && value <= high)) throw new ScpiError(-222, "Data out of range");
      return value;
    };
    const said = (run: () => void): null => {
      run();
      return null;
    };
    return [
      { header: "MEASure[:SCALar][:VOLTage][:DC]?", run: () => exponent(this.volts()) },
      { header: "MEASure[:SCALar]:CURRent[:DC]?", run: () => exponent(this.amps()) },
      {
        header: "MEASure:ARRay:CURRent[:DC]?",
        run: ([count, rate]) => {
          const rateHz = number(rate, 100, 500_000, 20_000);
          const samples = number(count, 2, mostTraceSamples, 40_000);
          return definiteBlock(bigEndian(this.trace(rateHz, samples / rateHz).amps));
        },
      },
      {
        header: "PRACtice:LEADs",
        run: ([red, black]) => said(() => ([this.red, this.black] = [point(red), point(black)])),
      },
      {
        header: "PRACtice:CLAMp",
        run: ([around = ""]) =>
          said(() => {
            if (!netlist.branchOf.has(around))
              throw new ScpiError(-224, `Illegal parameter value; no wire or motor ${around}`);
            this.around = around;
          }),
      },
      {
        header: "PRACtice:KEY",
        run: ([key = ""]) =>
          said(() => {
            const position = (["off", "acc", "run"] as const).find((own) => own === key.toLowerCase());
            if (!position) throw new ScpiError(-224, "Illegal parameter value; OFF, ACC or RUN");
            this.set({ key: position, ...(position === "run" ? {} : { engine: false }) });
          }),
      },
      { header: "PRACtice:SETTing", run: ([setting = ""]) => said(() => this.set({ setting })) },
      {
        header: "PRACtice:ENGine",
        run: ([on = ""]) => said(() => this.set({ engine: /^(on|1)$/i.test(on) })),
      },
    ];
  }
}

/** A number in the format of SCPI instruments: `+1.234500E+01`. */
function exponent(value: number): string {
  const [mantissa = "0", power = "0"] = value.toExponential(6).split("e");
  const sign = value < 0 ? "" : "+";
  return `${sign}${mantissa}E${power.startsWith("-") ? "-" : "+"}${power.replace(/[+-]/, "").padStart(2, "0")}`;
}

function bigEndian(values: Float32Array): Uint8Array {
  const bytes = new Uint8Array(4 * values.length);
  const view = new DataView(bytes.buffer);
  values.forEach((value, i) => void view.setFloat32(4 * i, value, false));
  return bytes;
}
