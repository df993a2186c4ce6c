import { vehicleSamples } from "../predict/tables/vehicleSample";
import type { Netlist } from "../solve/netlist/netlist";
import { type Setup, setupState } from "../solve/netlist/setup";
import { PointSolver } from "../solve/pointSolver";

/** What a sound vehicle shows: the mean, and the limits that hold nearly all. */
export interface Band {
  readonly low: number;
  readonly usual: number;
  readonly high: number;
}

/** The bands of one set-up, for the motor with the largest current there. */
export interface ProofBands {
  readonly motor: string;
  /** Amps in the motor's lead, and volts across the motor. */
  readonly amps: Band;
  readonly volts: Band;
}

const vehicles = 64;
const seed = 31;
/** Number of standard deviations to either side: one sound vehicle in eighty lies outside (normal distribution). */
const deviations = 2.5;
/**
 * One standard deviation of a usual clamp and a usual meter: half of 3 % + 0.3 A, and of 0.5 % + 0.02 V (common
 * practice, no source).
 */
const clampSigma = (amps: number): number => (0.3 + 0.03 * Math.abs(amps)) / 2;
const meterSigma = (volts: number): number => (0.02 + 0.005 * Math.abs(volts)) / 2;

/**
 * What a repaired vehicle should show, from its circuit with the new part, over vehicles sampled from the tolerances
 * and the instrument's own error.
 * @param setup engine off by default
 * @returns null if the circuit has no motor, or if the values of one are assumed: nobody knows then what it should draw
 */
export function proofBands(netlist: Netlist, setup: Setup): ProofBands | null {
  if (netlist.motors.some(({ part }) => part.assumed)) return null;
  const solver = new PointSolver(netlist);
  const state = setupState(netlist, setup);
  const solved = vehicleSamples(netlist, vehicles, seed).map(({ values }) => {
    const { volts, amps } = solver.solve(values, state, []);
    const at = (name: string): number => {
      const node = netlist.nodeOf.get(name) ?? -1;
      return node < 0 ? 0 : (volts[node] as number);
    };
    return netlist.motors.map(({ part, branch }) => ({
      amps: amps[branch] ?? 0,
      volts: at(`${part.id}.+`) - at(`${part.id}.-`),
    }));
  });
  const [nominal] = solved;
  if (!nominal || nominal.length === 0) return null;
  const most = nominal.reduce(
    (best, { amps }, index) => (Math.abs(amps) > Math.abs(nominal[best]?.amps ?? 0) ? index : best),
    0,
  );
  const of = (quantity: "amps" | "volts", sigma: (value: number) => number): Band =>
    bandOf(
      solved.map((motors) => motors[most]?.[quantity] ?? 0),
      sigma,
    );
  return {
    motor: netlist.motors[most]?.part.id ?? "",
    amps: of("amps", clampSigma),
    volts: of("volts", meterSigma),
  };
}

/** Mean and standard deviation of some values, with the instrument's error added in quadrature. */
export function bandOf(values: readonly number[], sigma: (value: number) => number): Band {
  const usual = values.reduce((sum, value) => sum + value, 0) / values.length;
  const variance =
    values.reduce((sum, value) => sum + (value - usual) ** 2, 0) / Math.max(1, values.length - 1);
  const reach = deviations * Math.sqrt(variance + sigma(usual) ** 2);
  return { low: usual - reach, usual, high: usual + reach };
}
