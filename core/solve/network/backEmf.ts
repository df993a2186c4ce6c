import { type MotorConstants, speedSlope, steadySpeed } from "../../motor/motorConstants";
import { lampAmps, lampSiemens, loadLamp } from "../tungstenLamp";
import { gaussJordan } from "./gaussJordan";
import type { Load } from "./load";

/** A load whose circuit conducts less than this many siemens draws no current. */
const noPath = 1e-12;

/** The circuit as seen by its loads. */
export interface RestOfCircuit {
  /** Amps of each load with no back-EMF anywhere. */
  readonly drawn: (load: number) => number;
  /** Amps one load loses for each volt of back-EMF in another. */
  readonly siemens: (load: number, other: number) => number;
}

/**
 * Solves the back-EMF of each load. The rest of the circuit is linear, so a load's amps are its amps without EMF minus
 * Σ siemens × EMF; its own law gives amps and EMF from its volts.
 * @param speeds receives the motors' speeds in radians a second
 */
export function backEmf(
  loads: readonly Load[],
  speeds: Float64Array,
  rest: RestOfCircuit,
): readonly number[] {
  return bySweeps(loads, speeds, rest) ?? newton(loads, speeds, rest);
}

const sweepRounds = 12;
const leastVolts = 1e-11;

/**
 * Solves the motors in turn, each behind the source the others leave it, until nothing moves. Motors share little but
 * the feed, so a few rounds are enough; one motor alone needs one.
 * @returns null if a load is not a motor or the rounds do not converge
 */
function bySweeps(
  loads: readonly Load[],
  speeds: Float64Array,
  { drawn, siemens }: RestOfCircuit,
): number[] | null {
  const emf: number[] = [];
  for (let load = 0; load < loads.length; load++) {
    if (!loads[load]?.motor) return null;
    emf.push(0);
  }
  for (let round = 0; round < sweepRounds; round++) {
    let moved = 0;
    for (let load = 0; load < loads.length; load++) {
      const { constants, index } = (loads[load] as Load).motor as NonNullable<Load["motor"]>;
      let amps = drawn(load);
      for (let other = 0; other < loads.length; other++)
        if (other !== load) amps -= siemens(load, other) * (emf[other] as number);
      const speed = behindSource(constants, amps, siemens(load, load));
      speeds[index] = speed;
      moved = Math.max(moved, Math.abs(constants.k * speed - (emf[load] as number)));
      emf[load] = constants.k * speed;
    }
    if (loads.length <= 1 || moved < leastVolts) return emf;
  }
  return null;
}

/**
 * One motor behind a source. Winding and source resistance are in series, so the torque balance has the closed form of
 * `steadySpeed`.
 */
function behindSource(motor: MotorConstants, amps: number, siemens: number): number {
  if (siemens < noPath || motor.held) return 0;
  // `steadySpeed` of the motor with 1 / siemens as its ohms, at amps / siemens volts.
  const torque = motor.k * amps - motor.friction;
  if (torque <= 0) return 0;
  const slope = motor.viscous + motor.k * motor.k * siemens;
  return (2 * torque) / (slope + Math.sqrt(slope * slope + 4 * motor.fan * torque));
}

/** Amps through a load at a given voltage, and their slope in siemens. */
function law({ motor, element }: Load, volts: number, speeds: Float64Array): { amps: number; slope: number } {
  if (!motor) return { amps: lampAmps(loadLamp, volts), slope: lampSiemens(loadLamp, volts) };
  const { constants, index } = motor;
  const speed = steadySpeed(constants, volts);
  speeds[index] = speed;
  return {
    amps: (volts - constants.k * speed) / element.ohms,
    slope: (1 - constants.k * speedSlope(constants, speed)) / element.ohms,
  };
}

const rounds = 60;
const leastAmps = 1e-11;

/** Damped Newton iteration on the volts across several loads. */
function newton(loads: readonly Load[], speeds: Float64Array, { drawn, siemens }: RestOfCircuit): number[] {
  const ohms = loads.map(({ element }) => element.ohms);
  const open = loads.map((_, i) => drawn(i));
  const admittance = loads.map((_, i) => loads.map((__, j) => siemens(i, j)));
  const evaluate = (volts: readonly number[]) => {
    const own = loads.map((load, i) => law(load, volts[i] as number, speeds));
    const emf = own.map(({ amps }, i) => (volts[i] as number) - (ohms[i] as number) * amps);
    const error = own.map(({ amps }, i) =>
      emf.reduce((sum, volt, j) => sum + (admittance[i]?.[j] as number) * volt, amps - (open[i] as number)),
    );
    return { own, emf, error, size: Math.max(...error.map(Math.abs)) };
  };
  let volts = open.map((amps, i) => amps * (ohms[i] as number));
  let now = evaluate(volts);
  for (let round = 0; round < rounds && now.size > leastAmps; round++) {
    const jacobian = loads.map((_, i) =>
      loads.map((__, j) => {
        const { slope } = now.own[j] as { slope: number };
        const through = (admittance[i]?.[j] as number) * (1 - (ohms[j] as number) * slope);
        return i === j ? slope + through : through;
      }),
    );
    const step = stepOf(jacobian, now.error);
    let scale = 1;
    for (let halving = 0; halving < 30; halving++) {
      const next = volts.map((volt, i) => volt - scale * (step[i] as number));
      const trial = evaluate(next);
      if (trial.size < now.size || halving === 29) {
        volts = next;
        now = trial;
        break;
      }
      scale /= 2;
    }
  }
  return now.emf;
}

/** The Newton step: it removes the error to first order. */
function stepOf(jacobian: readonly (readonly number[])[], error: readonly number[]): number[] {
  const count = error.length;
  const width = count + 1;
  const matrix = Float64Array.from(jacobian.flatMap((row, i) => [...row, error[i] as number]));
  gaussJordan(matrix, count, width);
  return error.map((_, i) => matrix[i * width + count] as number);
}
