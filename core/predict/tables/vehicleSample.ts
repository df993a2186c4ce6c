import { normalFrom, uniformSource } from "../../chance/uniformSource";
import type { MotorConstants } from "../../motor/motorConstants";
import type { Netlist, Spread } from "../../solve/netlist/netlist";
import { type ModuleValues, nominalValues, type Values } from "../../solve/netlist/values";
import type { Eyes } from "./eye";
import { normalCdf, normalQuantile } from "./normal";

/** One possible vehicle: its part values, and how its technician judges a lamp and the air. */
export interface VehicleSample {
  readonly values: Values;
  readonly eyes: Eyes;
  /** This hand's judgement of airflow, as a factor near 1. */
  readonly airflowBias: number;
  /** Position in its band of this vehicle's continuous fault, 0 to 1. */
  readonly severity: number;
  /** Which of its fault's noises this vehicle makes, as a quantile of their odds, 0 to 1. */
  readonly noise: number;
}

/** Relative scatter (log standard deviation) by kind of branch: judgements, no source. */
const logSpread: Readonly<Record<Spread, number>> = {
  contact: 0.35,
  wire: 0.05,
  fuse: 0.15,
  element: 0.05,
  coil: 0.05,
  winding: 0.05,
  source: 0.3,
};
/** Factor on the scatter of a value marked as assumed. */
const assumedTimes = 2.5;
const timesOf = (item: { readonly assumed?: boolean | undefined } | undefined): number =>
  item?.assumed ? assumedTimes : 1;
const batteryVoltsSpread = 0.22;
const lampVoltsSpread = 0.6;

function sampledMotor(nominal: MotorConstants, normal: () => number, times: number): MotorConstants {
  return {
    ...nominal,
    ohms: nominal.ohms * Math.exp(logSpread.winding * times * normal()),
    k: nominal.k * Math.exp(0.03 * times * normal()),
    friction: nominal.friction * Math.exp(0.4 * normal()),
    fan: nominal.fan * Math.exp(0.07 * times * normal()),
  };
}

/** Supply volts at which control modules drop out differ from make to make (common practice, no source). */
const dropOutVolts = { low: 5, high: 9 } as const;

const sampledDropOut = (normal: () => number): number =>
  dropOutVolts.low + (dropOutVolts.high - dropOutVolts.low) * normalCdf(normal());

/** Scatter of a control module's command thresholds, as a share of their span, and of the volts it drops out at. */
function sampledModule(nominal: ModuleValues, normal: () => number, times: number): ModuleValues {
  const span = 0.02 * times * (nominal.fullVolts - nominal.zeroVolts);
  const sleepVolts = sampledDropOut(normal);
  return {
    ...nominal,
    zeroVolts: nominal.zeroVolts + span * normal(),
    fullVolts: nominal.fullVolts + span * normal(),
    sleepVolts,
    wakeVolts: sleepVolts + nominal.wakeVolts - nominal.sleepVolts,
  };
}

function sampledValues(netlist: Netlist, nominal: Values, battery: number, normal: () => number): Values {
  return {
    ohms: Float64Array.from(netlist.branches, (branch) => {
      const spread = logSpread[branch.spread] * timesOf(branch);
      return branch.ohms * Math.exp(spread * normal());
    }),
    restVolts: nominal.restVolts + batteryVoltsSpread * battery,
    chargingVolts: nominal.chargingVolts + batteryVoltsSpread * normal(),
    motors: nominal.motors.map((motor, index) =>
      sampledMotor(motor, normal, timesOf(netlist.motors[index]?.part)),
    ),
    pullInVolts: nominal.pullInVolts.map((volts) => volts * Math.exp(0.08 * normal())),
    dropOutVolts: nominal.dropOutVolts.map((volts) => volts * Math.exp(0.12 * normal())),
    modules: nominal.modules.map((module, index) =>
      sampledModule(module, normal, timesOf(netlist.modules[index]?.part)),
    ),
    heads: nominal.heads.map((head, index) => ({
      ...head,
      commandTimes: Math.exp(0.015 * timesOf(netlist.heads[index]?.part) * normal()),
    })),
  };
}

/** The middles of `count` equal slices of 0 to 1, shuffled. */
function shuffledSlices(count: number, normal: () => number): number[] {
  const order = Array.from({ length: count }, (_, i) => (i + 0.5) / count);
  for (let i = count - 1; i > 0; i--) {
    const j = Math.min(i, Math.floor(normalCdf(normal()) * (i + 1)));
    [order[i], order[j]] = [order[j] as number, order[i] as number];
  }
  return order;
}

/**
 * Whole vehicles sampled from the tolerances. The first is nominal. In the rest, battery volts, severity and noise of the
 * fault are each stratified, since every reading shares them.
 */
export function vehicleSamples(netlist: Netlist, count: number, seed: number): VehicleSample[] {
  const nominal = nominalValues(netlist);
  const normal = normalFrom(uniformSource(seed));
  const batteries = shuffledSlices(count - 1, normal);
  const severities = shuffledSlices(count - 1, normal);
  const noises = shuffledSlices(count - 1, normal);
  const samples: VehicleSample[] = [
    { values: nominal, eyes: { brightVolts, dimVolts }, airflowBias: 1, severity: 0.5, noise: 0.5 },
  ];
  for (let sample = 1; sample < count; sample++) {
    const battery = normalQuantile(batteries[sample - 1] as number);
    samples.push({
      values: sampledValues(netlist, nominal, battery, normal),
      eyes: {
        brightVolts: brightVolts + lampVoltsSpread * normal(),
        dimVolts: dimVolts + lampVoltsSpread * normal(),
      },
      airflowBias: Math.exp(0.08 * normal()),
      severity: severities[sample - 1] as number,
      noise: noises[sample - 1] as number,
    });
  }
  return samples;
}

/** Lamp volts above which a test light is called bright, and dim. */
const brightVolts = 9;
const dimVolts = 3;
