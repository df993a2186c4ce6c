import { batteryPosts, nodeAt, pointProblems, suggestedPoints } from "../probePoints";
import type { TestOf } from "../reading";
import type { LiveSetup } from "../tables/compiledCircuit";
import type { NumberObservation } from "./observation";

/** The meter's own 0.5 % + 0.02 V, widened for what the drawn vehicles leave out (judgement). */
const meterShare = 0.012;
const meterVolts = 0.12;

const windowVolts = 0.25;
/** A lead on the wrong point mostly finds nothing or the full feed (judgement, no source). */
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

/** Volts, red minus black, on a meter that hardly loads what it measures. */
export const voltsTest: NumberObservation<"volts"> = {
  test: "volts",
  gives: "number",
  minutes: 0.7,
  tools: ["meter"],
  problems: (compiled, { red, black }) => pointProblems(compiled, { red, black }),
  reaches: ({ red, black }) => [red, black],
  candidates: (compiled) => {
    const { plus, minus } = batteryPosts(compiled);
    const volts = (red: string, black: string, setup: LiveSetup) =>
      ({ test: "volts", red, black, ...setup }) as const;
    const [off] = compiled.probingSetups();
    const single = suggestedPoints(compiled)
      .filter((red) => red !== plus && red !== minus)
      .map((red) => [red, minus] as const);
    const across = compiled.netlist.motors.map(({ part }) => {
      const at = (terminal: string): string => {
        const name = `${part.id}.${terminal}`;
        return compiled.netlist.points.pinOnTerminal.get(name) ?? name;
      };
      return [at("+"), at("-")] as const;
    });
    const running = compiled.probingSetups().filter((setup) => setup !== off);
    return [...single, ...across].flatMap(([red, black]) => running.map((setup) => volts(red, black, setup)));
  },
  value: (compiled, test: TestOf<"volts">) => {
    const table = compiled.table(test);
    const red = nodeAt(compiled, test.red) ?? -1;
    const black = nodeAt(compiled, test.black) ?? -1;
    return (row, sample) => table.voltsBetween(row, sample, red, black);
  },
  sigma: (volts) => meterVolts + meterShare * Math.abs(volts),
  window: windowVolts,
  blind,
  scale: (volts) => volts,
  seen: ({ volts }) => volts,
};
