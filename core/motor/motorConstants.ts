import type { Motor } from "../circuit/parts/index";

/**
 * A permanent-magnet motor turning a fan: V = I R + k ω and k I = friction + viscous ω + fan ω². SI units: ohms, volt
 * seconds (= newton metres per amp), newton metres, radians a second.
 */
export interface MotorConstants {
  readonly ohms: number;
  readonly k: number;
  readonly friction: number;
  readonly viscous: number;
  readonly fan: number;
  /** True if something locks the shaft: no rotation, stall current. */
  readonly held: boolean;
}

export const defaultFrictionShare = 0.08;
const radPerSecond = (rpm: number): number => (rpm * Math.PI) / 30;
/** Revolutions a minute from radians a second. */
export const rpmOf = (radPerSec: number): number => (radPerSec * 30) / Math.PI;

/**
 * The constants of a motor from its plate: R is rated volts over stall amps, k follows from the rated point, and the
 * rated torque k I is shared between friction and the fan's square law.
 */
export function motorConstants(motor: Motor): MotorConstants {
  const ohms = motor.ratedVolts / motor.stallAmps;
  const rated = radPerSecond(motor.ratedRpm);
  const k = (motor.ratedVolts - motor.ratedAmps * ohms) / rated;
  const torque = k * motor.ratedAmps;
  const share = motor.frictionShare ?? defaultFrictionShare;
  return {
    ohms,
    k,
    friction: share * torque,
    viscous: 0,
    fan: ((1 - share) * torque) / (rated * rated),
    held: false,
  };
}

/** What a fault does to a motor's constants. */
export type MotorChange =
  | { readonly mode: "seized" }
  | { readonly mode: "tight"; readonly times: number }
  | { readonly mode: "shorted-turns"; readonly share: number }
  | { readonly mode: "worn-brushes"; readonly ohms: number }
  | { readonly mode: "drag"; readonly torqueShare: number }
  | { readonly mode: "fan"; readonly times: number };

/**
 * The constants of a faulty motor.
 * @param rated the motor's plate; its rated volts and amps define the drag of `tight`
 */
export function changedMotor(healthy: MotorConstants, rated: Motor, change: MotorChange): MotorConstants {
  switch (change.mode) {
    case "seized":
      return { ...healthy, held: true };
    case "tight":
      return tightMotor(healthy, rated, change.times);
    case "shorted-turns":
      return shortedMotor(healthy, rated, change.share);
    case "worn-brushes":
      return { ...healthy, ohms: healthy.ohms + change.ohms };
    case "drag":
      return {
        ...healthy,
        friction: healthy.friction + change.torqueShare * healthy.k * rated.ratedAmps,
      };
    case "fan":
      return { ...healthy, fan: healthy.fan * change.times };
  }
}

/** A constant extra torque with which rated volts draw `times` the rated amps; a locked shaft at stall. */
function tightMotor(healthy: MotorConstants, rated: Motor, times: number): MotorConstants {
  const amps = times * rated.ratedAmps;
  const speed = (rated.ratedVolts - amps * healthy.ohms) / healthy.k;
  if (speed <= 0) return { ...healthy, held: true };
  const torque = healthy.k * amps - healthy.viscous * speed - healthy.fan * speed * speed;
  return { ...healthy, friction: Math.max(healthy.friction, torque) };
}

/** Resistance × share with the same k, and a viscous drag with which rated volts draw ratedAmps / share. */
function shortedMotor(healthy: MotorConstants, rated: Motor, share: number): MotorConstants {
  const ohms = healthy.ohms * share;
  const amps = rated.ratedAmps / share;
  const speed = (rated.ratedVolts - amps * ohms) / healthy.k;
  const torque = healthy.k * amps - healthy.friction - healthy.fan * speed * speed;
  return { ...healthy, ohms, viscous: Math.max(0, torque / speed) };
}

/**
 * Steady speed at a voltage, from the positive root of fan ω² + (viscous + k²/R) ω = k V/R − friction.
 * @returns radians a second; 0 if the torque does not exceed friction, or if the shaft is locked
 */
export function steadySpeed(motor: MotorConstants, volts: number): number {
  if (motor.held) return 0;
  const torque = (motor.k * volts) / motor.ohms - motor.friction;
  if (torque <= 0) return 0;
  const slope = motor.viscous + (motor.k * motor.k) / motor.ohms;
  return (2 * torque) / (slope + Math.sqrt(slope * slope + 4 * motor.fan * torque));
}

/** dω/dV at a steady speed; 0 at standstill. */
export function speedSlope(motor: MotorConstants, speed: number): number {
  if (speed <= 0) return 0;
  const slope = motor.viscous + (motor.k * motor.k) / motor.ohms + 2 * motor.fan * speed;
  return motor.k / motor.ohms / slope;
}
