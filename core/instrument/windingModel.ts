import { randomSource } from "../chance/randomSource";
import { humpsPerTurn } from "../motor/commutator";
import type { MotorConstants } from "../motor/motorConstants";
import type { CurrentRecording } from "../signal/currentRecording";

/** A motor for current recordings: its constants, its commutator, and its faults. */
export interface SimulatedMotor {
  readonly constants: MotorConstants;
  readonly bars: number;
  readonly poles: number;
  /** Ohms added while a bar is under a brush, by bar. */
  readonly badBars?: readonly { readonly bar: number; readonly ohms: number }[];
  /** Torque variation once per turn, as a share of friction and fan torque: a tight spot, or an unbalanced wheel. */
  readonly wanderShare?: number;
  /** Newton metre seconds squared; about that of a blower wheel by default. */
  readonly inertia?: number;
  readonly henries?: number;
}

/** How its current is measured. */
export interface SimulatedScope {
  readonly rateHz: number;
  readonly seconds: number;
  /** Volts across the motor while it runs. */
  readonly volts: number;
  /** Share by which the volts fall over the recording: a discharging battery, a drifting speed. */
  readonly driftShare?: number;
  /** Random variation of the commutation's timing, as a share of a ripple. */
  readonly jitterShare?: number;
  /** True to start from standstill. */
  readonly fromRest?: boolean;
  /** Root mean square of the clamp's own noise, in amps. */
  readonly noiseAmps?: number;
  /** The clamp's bandwidth in hertz; 20 kHz by default. */
  readonly clampHz?: number;
  /** A PWM control module, with its duty. */
  readonly chopping?: { readonly hz: number; readonly duty: number };
  readonly seed?: number;
}

/** Typical of a small blower motor (judgement, no source): a time constant of half a millisecond. */
const usualHenries = 1e-4;
const usualInertia = 8e-4;
/** Ripple of the back-EMF beyond the ideal, from the coils a brush shorts while they commutate. */
const commutationRipple = 0.03;
const longestStep = 2e-5;
const usualClampHz = 20_000;

/**
 * The current of a permanent-magnet motor from its winding: L di/dt = v − k ω g(θ) − R(θ) i. The back-EMF g is that of
 * coils in series, rectified by the commutator (cos of the angle from the middle of a bar; textbooks on direct-current
 * machines, from memory). Brush contact depends on the bar, and the wheel has its own inertia.
 * @returns the current as the clamp shows it, and the number of turns of the shaft at each sample
 */
export function simulatedRecording(
  motor: SimulatedMotor,
  scope: SimulatedScope,
): CurrentRecording & { readonly turns: Float64Array } {
  const { constants, bars, poles } = motor;
  const { rateHz, chopping } = scope;
  const { uniform, normal } = randomSource(scope.seed ?? 1);
  const perTurn = humpsPerTurn(bars, poles);
  const henries = motor.henries ?? usualHenries;
  const inertia = motor.inertia ?? usualInertia;
  const ripple = Math.max(1 - Math.cos(Math.PI / perTurn), commutationRipple);
  const perSample = Math.max(
    1,
    Math.ceil(1 / rateHz / longestStep),
    chopping ? Math.ceil((12 * chopping.hz) / rateHz) : 1,
  );
  const step = 1 / rateHz / perSample;
  const contact = new Float64Array(bars);
  for (const { bar, ohms } of motor.badBars ?? []) contact[bar % bars] = ohms;
  const amps = new Float32Array(Math.round(rateHz * scope.seconds));
  const turns = new Float64Array(amps.length);
  let speed = scope.fromRest ? 0 : steadyOmega(constants, scope.volts * (chopping?.duty ?? 1));
  let current = scope.fromRest
    ? 0
    : (scope.volts * (chopping?.duty ?? 1) - constants.k * speed) / constants.ohms;
  let angle = uniform() * 2 * Math.PI;
  let slip = 0;
  let hump = -1;
  const jitter = scope.jitterShare ?? 0;
  // A one-pole low-pass for the clamp, and the scope's own averaging over a sample.
  const clamp = 1 - Math.exp(-2 * Math.PI * (scope.clampHz ?? usualClampHz) * step);
  let clamped = current;
  for (let sample = 0; sample < amps.length; sample++) {
    const volts = scope.volts * (1 - ((scope.driftShare ?? 0) * sample) / amps.length);
    let sum = 0;
    for (let i = 0; i < perSample; i++) {
      const turn = angle / (2 * Math.PI);
      const place = turn * perTurn + slip;
      const now = Math.floor(place);
      if (now !== hump) {
        hump = now;
        if (jitter > 0) slip = jitter * normal();
      }
      const inHump = place - now - 0.5;
      const emf = constants.k * speed * (1 - ripple * 4 * inHump * inHump);
      const under = Math.floor(turn * bars) % bars;
      const across = Math.floor(turn * bars + bars / poles) % bars;
      const ohms = constants.ohms + (contact[under] as number) + (contact[across] as number);
      const on = chopping
        ? shareOn((sample / rateHz + i * step) * chopping.hz, step * chopping.hz, chopping.duty)
        : 1;
      current += (on * volts - emf - ohms * current) * (step / (henries + ohms * step));
      // The freewheel diode and the brush block reverse current.
      if (current < 0) current = 0;
      const load = constants.friction + constants.fan * speed * speed + constants.viscous * speed;
      const swing = 1 + (motor.wanderShare ?? 0) * Math.cos(angle);
      speed = constants.held
        ? 0
        : Math.max(0, speed + ((constants.k * current - load * swing) * step) / inertia);
      angle += speed * step;
      clamped += clamp * (current - clamped);
      sum += clamped;
    }
    turns[sample] = angle / (2 * Math.PI);
    amps[sample] = sum / perSample + (scope.noiseAmps ?? 0) * normal();
  }
  return { amps, rateHz, turns };
}

/** Share of a step during which a chopped supply is on, so that its edges need not coincide with steps. */
function shareOn(phase: number, length: number, duty: number): number {
  const onUntil = (at: number): number => Math.floor(at) * duty + Math.min(duty, at - Math.floor(at));
  return (onUntil(phase + length) - onUntil(phase)) / length;
}

/** Speed at which the mean torque balances, by bisection; the winding model needs no more accuracy. */
function steadyOmega({ k, ohms, friction, fan, viscous, held }: MotorConstants, volts: number): number {
  if (held) return 0;
  let [low, high] = [0, volts / k];
  for (let i = 0; i < 60; i++) {
    const speed = (low + high) / 2;
    const torque = (k * (volts - k * speed)) / ohms - friction - viscous * speed - fan * speed * speed;
    if (torque > 0) low = speed;
    else high = speed;
  }
  return (low + high) / 2;
}
