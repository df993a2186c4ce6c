import { healthyPoints } from "../healthyPoint";
import type { Netlist } from "../netlist/netlist";

/** What kind of blower circuit this is, in the trade's terms. */
export interface CircuitFamily {
  /** What makes the lower speeds. */
  readonly control: "resistor" | "linear" | "chopping" | "switch";
  /** The side of the motor the speed control works on. */
  readonly side: "ground" | "feed";
  /** The settings in which a motor turns. */
  readonly speeds: number;
  readonly relays: number;
  readonly motors: number;
  readonly steering: "left" | "right" | null;
}

/** A motor slower than this, in rpm, counts as stopped. */
const turning = 60;

/**
 * Derives a circuit's family from its parts and from where volts are lost on the lowest speed of the healthy vehicle.
 */
export function circuitFamily(netlist: Netlist): CircuitFamily {
  const { circuit, motors, relays, modules, battery } = netlist;
  const [motor] = motors;
  const points = healthyPoints(netlist)
    .map(({ point }) => point)
    .filter(({ rpm }) => motors.some(({ part }) => (rpm[part.id] ?? 0) > turning));
  const weakest = points.reduce<(typeof points)[number] | undefined>((least, point) => {
    const speed = (own: typeof point): number => own.rpm[motor?.part.id ?? ""] ?? 0;
    return !least || (speed(point) > turning && speed(point) < speed(least)) ? point : least;
  }, undefined);
  const volts = (terminal: string): number => weakest?.volts[`${motor?.part.id}.${terminal}`] ?? 0;
  const feed = weakest?.volts[`${battery.id}.+`] ?? 0;
  const [module] = modules;
  return {
    control: module
      ? module.part.drive === "pwm"
        ? "chopping"
        : "linear"
      : circuit.parts.some(({ kind }) => kind === "resistor")
        ? "resistor"
        : "switch",
    side: Math.min(volts("+"), volts("-")) > feed - Math.max(volts("+"), volts("-")) ? "ground" : "feed",
    speeds: points.length,
    relays: relays.length,
    motors: motors.length,
    steering: circuit.steering ?? null,
  };
}

/** The family a shop counts its faults by: what makes the speeds and on which side, such as `resistor ground`. */
export function familyName(netlist: Netlist): string {
  const { control, side } = circuitFamily(netlist);
  return `${control} ${side}`;
}
