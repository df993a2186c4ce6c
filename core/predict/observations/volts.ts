import { z } from "zod";
import { busPoints } from "../../circuit/declined";
import { plugsOf } from "../../circuit/plugs";
import { batteryPosts, nodeAt, pointProblems, suggestedProbes } from "../probePoints";
import { pointName, setupKeys } from "../setupKeys";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { numberTest, type TestIn } from "./observation";
import type { TestedVehicle } from "./testedVehicle";

const voltsReading = z.strictObject({
  test: z.literal("volts"),
  ...setupKeys,
  red: pointName,
  black: pointName,
  volts: z.number().min(-1000).max(1000),
});
type VoltsTest = TestIn<typeof voltsReading, "volts">;

/** The meter's own 0.5 % + 0.02 V, widened for what the sampled vehicles do not cover (judgement). */
const meterShare = 0.012;
const meterVolts = 0.12;

/** Log standard deviation of values that differ from maker to maker (judgement). */
const guessedParts = 0.3;
const usualFeedVolts = 12.6;

const windowVolts = 0.25;
/** A lead on the wrong point usually finds nothing or the full feed (judgement, no source). */
const nothingShare = 0.4;
const feedShare = 0.3;
const feedVolts = { low: 11, high: 14.5 } as const;
const rangeVolts = 15;

function blind(volts: number): number {
  const flat = ((1 - nothingShare - feedShare) * windowVolts) / rangeVolts;
  if (Math.abs(volts) < 2 * windowVolts) return flat + nothingShare / 4;
  const atFeed = volts > feedVolts.low && volts < feedVolts.high;
  return atFeed ? flat + (feedShare * windowVolts) / (feedVolts.high - feedVolts.low) : flat;
}

function simulated(vehicle: TestedVehicle, test: VoltsTest): { volts: number } {
  const { volts } = vehicle.between(test, test.red, test.black);
  return { volts: Math.round(vehicle.shownVolts(volts) * 100) / 100 };
}

/** A climate panel's command at its own plug, with the control's plug off so that nothing loads it down. */
function unloadedCommands(compiled: CompiledCircuit): VoltsTest[] {
  const { heads, modules, points, circuit } = compiled.netlist;
  const { minus } = batteryPosts(compiled);
  const unplugged = modules.flatMap(({ part }) => plugsOf(circuit, part.id));
  const bus = busPoints(circuit);
  const top = compiled.runningSetups().at(-1);
  return heads.flatMap(({ part }) => {
    const terminal = `${part.id}.cmd`;
    const red = points.pinOnTerminal.get(terminal) ?? terminal;
    return bus.has(red) || !top ? [] : [{ test: "volts" as const, red, black: minus, ...top, unplugged }];
  });
}

/** Volts, red minus black, on a meter that hardly loads the circuit. */
export const voltsTest = numberTest(voltsReading, {
  figure: "volts",
  minutes: 0.7,
  tools: ["meter"],
  form: { pick: { kind: "points", keys: ["red", "black"] }, setup: "live", targets: { point: 2 } },
  problems: (compiled, { red, black }) => pointProblems(compiled, { red, black }),
  reaches: ({ red, black }) => [red, black],
  candidates: (compiled) => {
    const { plus, minus } = batteryPosts(compiled);
    const single = suggestedProbes(compiled).map(
      ({ point, setup }) => ({ test: "volts", red: point, black: minus, ...setup }) as const,
    );
    const across = compiled.netlist.motors.map(({ part }) => {
      const at = (terminal: string): string => {
        const name = `${part.id}.${terminal}`;
        return compiled.netlist.points.pinOnTerminal.get(name) ?? name;
      };
      return [at("+"), at("-")] as const;
    });
    const setups = compiled.probingSetups();
    const top = compiled.runningSetups().at(-1);
    return [
      ...single,
      ...(top ? [{ test: "volts", red: plus, black: minus, ...top } as const] : []),
      ...unloadedCommands(compiled),
      ...across.flatMap(([red, black]) =>
        setups.map((setup) => ({ test: "volts", red, black, ...setup }) as const),
      ),
    ];
  },
  value: (compiled, test) => {
    const table = compiled.table(test);
    const red = nodeAt(compiled, test.red) ?? -1;
    const black = nodeAt(compiled, test.black) ?? -1;
    return (row, sample) => table.voltsBetween(row, sample, red, black);
  },
  sigma: (volts) => meterVolts + meterShare * Math.abs(volts),
  // Nothing and the full feed do not depend on the parts; what lies between is divided by them.
  guessedSigma: (volts) => {
    const share = Math.min(1, Math.abs(volts) / usualFeedVolts);
    return guessedParts * usualFeedVolts * share * (1 - share);
  },
  window: windowVolts,
  blind,
  scale: (volts) => volts,
  fill: (compiled, test) => {
    const node = (point: string): number => compiled.netlist.nodeOf.get(point) ?? -1;
    const [red, black] = [node(test.red), node(test.black)];
    return (cells, out) => void compiled.table(test).fillVolts(cells, red, black, out);
  },
  seen: ({ volts }) => volts,
  simulate: simulated,
  slip: (vehicle, test) => simulated(vehicle, { ...test, red: vehicle.chance.pick(vehicle.points) }),
});
