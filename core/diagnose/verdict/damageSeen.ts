import { notListed, type Repair, sameParts } from "../../fault/repair";
import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { rankedRepairs } from "../belief/belief";
import type { Forecast } from "../tests/forecast";

/** Plugs that look melted, by the last look at each. */
function meltedPlugs({ netlist }: CompiledCircuit, readings: readonly Reading[]): string[] {
  const last = new Map<string, string>();
  for (const reading of readings) if (reading.test === "look") last.set(reading.at, reading.seen);
  return netlist.circuit.connectors.flatMap(({ id }) => (last.get(id) === "melted" ? [id] : []));
}

/**
 * A melted plug is renewed with the part it sits on, whether or not its contact still conducts (common practice, no
 * source): the belief in a repair of that part alone counts for the repair of both.
 */
export function renewedAsSeen(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  byRepair: ReadonlyMap<Repair, number>,
): ReadonlyMap<Repair, number> {
  const melted = meltedPlugs(compiled, readings);
  if (melted.length === 0) return byRepair;
  const { connectors } = compiled.netlist.circuit;
  const sums = new Map(byRepair);
  for (const plug of melted) {
    const pins = Object.values(connectors.find(({ id }) => id === plug)?.pins ?? {});
    for (const [repair, p] of [...sums]) {
      const mated = repair.parts.some((part) => pins.some((terminal) => terminal.startsWith(`${part}.`)));
      if (repair === notListed || repair.parts.includes(plug) || !mated) continue;
      const both = compiled.repairs.find(({ parts }) => sameParts(parts, [...repair.parts, plug]));
      if (!both) continue;
      sums.set(both, (sums.get(both) ?? 0) + p);
      sums.delete(repair);
    }
  }
  return sums;
}

/** A plug's damage is asked about if the belief in it is at least this. */
const worthSeeing = 0.008;

/**
 * The look at a plug that belongs before a verdict: the plug of the part that leads, if it may be burnt or wet as well
 * and nobody has looked at it. Null if there is none, or if the look is not among the tests.
 */
export function plugToSee(
  readings: readonly Reading[],
  byRepair: ReadonlyMap<Repair, number>,
  tests: readonly Forecast[],
): Forecast | null {
  const [[leader] = [notListed]] = rankedRepairs(byRepair);
  const looked = new Set(readings.flatMap((reading) => (reading.test === "look" ? [reading.at] : [])));
  for (const [{ parts }, p] of rankedRepairs(byRepair)) {
    if (p < worthSeeing) return null;
    const others = parts.filter((part) => !leader.parts.includes(part));
    if (others.length !== 1 || parts.length !== leader.parts.length + 1) continue;
    const found = tests.find(
      ({ look }) => look.test === "look" && look.at === others[0] && !looked.has(look.at),
    );
    if (found) return found;
  }
  return null;
}
