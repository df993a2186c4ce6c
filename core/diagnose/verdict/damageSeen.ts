import { plugsOf } from "../../circuit/plugs";
import { type Repair, sameParts } from "../../fault/repair";
import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { rankedRepairs } from "../belief/belief";
import type { Forecast } from "../tests/forecast";

/** What each part and plug looked like when last inspected. */
const lastSeen = (readings: readonly Reading[]): ReadonlyMap<string, string> =>
  new Map(readings.flatMap((reading) => (reading.test === "look" ? [[reading.at, reading.seen]] : [])));

/** Plugs that looked melted or wet when last inspected. */
function damagedPlugs({ netlist }: CompiledCircuit, readings: readonly Reading[]): string[] {
  const last = lastSeen(readings);
  return netlist.circuit.connectors.flatMap(({ id }) =>
    ["melted", "wet"].includes(last.get(id) ?? "") ? [id] : [],
  );
}

/** What was seen damaged and is work as well, whatever the verdict: with what it looked like. */
export const damageLeft = (
  readings: readonly Reading[],
  replace: readonly string[],
): { readonly at: string; readonly seen: string }[] =>
  [...lastSeen(readings)].flatMap(([at, seen]) =>
    seen === "clean" || replace.includes(at) ? [] : [{ at, seen }],
  );

/**
 * What a repair comes to once a plug of its part was seen melted or wet: that plug is renewed with it, whether or not
 * its contact still conducts (common practice, no source).
 */
export function renewal(compiled: CompiledCircuit, readings: readonly Reading[]): (repair: Repair) => Repair {
  const { circuit } = compiled.netlist;
  const damaged = damagedPlugs(compiled, readings);
  return (repair) =>
    damaged.reduce((sum, plug) => {
      const mated = sum.parts.some((part) => plugsOf(circuit, part).includes(plug));
      if (!mated || sum.parts.includes(plug)) return sum;
      return compiled.repairs.find(({ parts }) => sameParts(parts, [...sum.parts, plug])) ?? sum;
    }, repair);
}

/** The belief by repair, each as it comes to with the plugs that are renewed with it. */
export function renewedAsSeen(
  byRepair: ReadonlyMap<Repair, number>,
  renewed: (repair: Repair) => Repair,
): ReadonlyMap<Repair, number> {
  const sums = new Map<Repair, number>();
  for (const [repair, p] of byRepair) {
    const whole = renewed(repair);
    sums.set(whole, (sums.get(whole) ?? 0) + p);
  }
  return sums;
}

/** A plug with less belief than this is not worth an extra look. */
const worthSeeing = 0.008;

/**
 * The inspection due before a verdict: of a plug on the leading repair's part that nobody has looked at and that may
 * have failed with it. Null if none is due, or if the tools at hand do not offer it.
 */
export function plugToSee(
  { netlist }: CompiledCircuit,
  readings: readonly Reading[],
  byRepair: ReadonlyMap<Repair, number>,
  tests: readonly Forecast[],
): Forecast | null {
  const [first, ...rivals] = rankedRepairs(byRepair);
  if (!first) return null;
  const [leader] = first;
  const looked = new Set(readings.flatMap((reading) => (reading.test === "look" ? [reading.at] : [])));
  const plugs = leader.parts.flatMap((part) => plugsOf(netlist.circuit, part));
  for (const [{ parts }, p] of rivals) {
    if (p < worthSeeing) return null;
    const plug = plugs.find((id) => !looked.has(id) && sameParts(parts, [...leader.parts, id]));
    const found = tests.find(({ look }) => look.test === "look" && look.at === plug);
    if (found) return found;
  }
  return null;
}
