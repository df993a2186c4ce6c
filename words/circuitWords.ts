import type { CircuitFamily } from "@core/solve/checks/circuitFamily";
import type { CircuitDoubt, CircuitFinding } from "@core/solve/checks/circuitFinding";
import { ampsText, listed, ohmsText, voltsText } from "@core/units/wording";

const controlWords: Readonly<Record<CircuitFamily["control"], string>> = {
  resistor: "resistor pack",
  linear: "linear control module",
  chopping: "PWM control module",
  switch: "switch only",
};

/**
 * A circuit family by its name: `resistor pack, ground side`.
 * @param family as `familyName` gives it: `resistor ground`
 */
export function familyNameText(family: string): string {
  const [control = "", side = ""] = family.split(" ");
  const words = Object.entries(controlWords).find(([own]) => own === control)?.[1] ?? control;
  return `${words}, ${side} side`;
}

/** A family in a few words: `4 speeds, resistor pack on the ground side, 1 relay`. */
export function familyText({ control, side, speeds, relays, motors, steering }: CircuitFamily): string {
  const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? "" : "s"}`;
  return [
    counted(speeds, "speed"),
    `${controlWords[control]} on the ${side} side`,
    relays === 0 ? "no relay" : counted(relays, "relay"),
    ...(motors > 1 ? [counted(motors, "motor")] : []),
    ...(steering === "right" ? ["right-hand drive"] : []),
  ].join(", ");
}

/** A finding about a circuit, in one sentence. */
function circuitDoubtText(what: CircuitDoubt): string {
  switch (what.code) {
    case "splice-joins-nothing":
      return `${what.part} joins no wires`;
    case "no-wire":
      return `no wire goes to ${listed(what.terminals)}`;
    case "ground-not-wired":
      return `no wire goes to ground point ${what.part}. Wire it, or delete it`;
    case "no-ground":
      return "no wire leads to a ground point, so no current can flow";
    case "fuse-too-large":
      return `${what.fuse}, a ${what.ratedAmps} A fuse, cannot protect ${what.wire}: ${what.mm2} mm² can carry ${ampsText(what.ableAmps)} for long`;
    case "pack-order":
      return `the coils of ${what.pack} may be entered in reverse: ${what.low}, used by the lowest speed, has ${ohmsText(what.lowOhms)}, and ${what.high}, used by the most speeds, ${ohmsText(what.highOhms)}. Usually the lowest speed's coil has the most ohms`;
    case "short":
      return `${what.wire} would carry ${ampsText(what.amps)} on ${what.setting}: it shorts the battery from ${what.from} to ${what.to}`;
    case "never-turns":
      return `${what.motor} does not turn on any setting with the key on`;
    case "same-speed":
      return `${what.setting} changes nothing: ${what.motor} turns as fast as on ${what.before}`;
    case "slower":
      return `${what.setting} is slower than ${what.before}: ${what.motor} turns at ${Math.round(what.rpm)} rpm instead of ${Math.round(what.rpmBefore)} rpm`;
    case "fuse-too-small":
      return `${what.fuse}, a ${what.ratedAmps} A fuse, carries ${ampsText(what.amps)} on ${what.setting}`;
    case "wire-too-thin":
      return `${what.wire}, ${what.mm2} mm², carries ${ampsText(what.amps)} on ${what.setting}; it can carry ${ampsText(what.ableAmps)} for long`;
    case "wire-drops":
      return `${what.wire} drops ${voltsText(what.volts)} on ${what.setting}: ${what.metres} m of ${what.mm2} mm² at ${ampsText(what.amps)}`;
  }
}

/** The findings from a circuit's own currents, in words. */
export const circuitFindingWords = (findings: readonly CircuitFinding[]) =>
  findings.map(({ path, what, weight }) => ({ path, weight, message: circuitDoubtText(what) }));
