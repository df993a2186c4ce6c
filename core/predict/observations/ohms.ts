import { z } from "zod";
import { nodeAt, pointProblems } from "../probePoints";
import { pointName, setupKeys } from "../setupKeys";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import { numberTest, type TestIn } from "./observation";

const ohmsReading = z.strictObject({
  test: z.literal("ohms"),
  ...setupKeys,
  red: pointName,
  black: pointName,
  ohms: z.number().min(0).max(1e9).nullable(),
});
type OhmsTest = TestIn<typeof ohmsReading, "ohms">;

/** Ohms above which a meter shows OL (open). */
const noEndOhms = 2e6;
const leadOhms = 0.1;

/** Log standard deviation of a pack's elements from maker to maker (judgement). */
const guessedParts = 0.3;

const window = 0.15;
/** A lead on the wrong point usually shows OL (judgement, no source); other displays spread over the log scale. */
const noEndShare = 0.4;
const rangeLog = 6;

/** What the leads add to most displays: a meter is good to 1 % and 0.1 Ω. */
const usualLeadOhms = 0.03;

/** A log scale that is linear below the meter's own 0.1 Ω and ends at OL. */
const scale = (ohms: number): number => Math.log(Math.min(ohms, noEndOhms) + leadOhms);

/** Ways to measure a pack or a motor by itself: its plug off, between every pair of its plugged terminals. */
function partPairs(compiled: CompiledCircuit): OhmsTest[] {
  const { circuit } = compiled.netlist;
  return circuit.connectors.flatMap((connector) => {
    const terminals = Object.values(connector.pins).filter((terminal) => {
      const kind = circuit.parts.find(({ id }) => terminal.startsWith(`${id}.`))?.kind;
      return kind === "resistor" || kind === "motor";
    });
    return terminals.flatMap((red, index) =>
      terminals
        .slice(index + 1)
        .map((black) => ({ test: "ohms" as const, red, black, unplugged: [connector.id] })),
    );
  });
}

/** Ways to measure a switch by itself: its plug off, from its common to each output where that is closed. */
function switchPairs({ netlist }: CompiledCircuit): OhmsTest[] {
  const { parts, connectors, settings } = netlist.circuit;
  return parts.flatMap((part) => {
    if (part.kind !== "selector") return [];
    const common = `${part.id}.${part.common}`;
    const plug = connectors.find(({ pins }) => Object.values(pins).includes(common));
    if (!plug) return [];
    const outputs = [...new Set(Object.values(part.closes).flat())];
    return outputs.flatMap((output): OhmsTest[] => {
      const at = (part.settings ?? settings).find((setting) => part.closes[setting]?.includes(output));
      const red = `${part.id}.${output}`;
      if (at === undefined || !Object.values(plug.pins).includes(red)) return [];
      const stands = part.settings ? { selectors: { [part.id]: at } } : { setting: at };
      return [{ test: "ohms", red, black: common, unplugged: [plug.id], ...stands }];
    });
  });
}

/**
 * Searching for a short with the battery disconnected: from the load side of each fuse to ground, with the fuse out
 * and one thing after another unplugged; and from each pin of a disconnected plug.
 */
function toGround({ netlist }: CompiledCircuit): OhmsTest[] {
  const { circuit, battery } = netlist;
  const black = `${battery.id}.-`;
  const fuses = circuit.parts.filter(({ kind }) => kind === "fuse").map(({ id }) => id);
  const relays = circuit.parts.filter(({ kind }) => kind === "relay").map(({ id }) => id);
  const inlines = circuit.parts.flatMap((part) => (part.kind === "inline" ? [part] : []));
  const plugs = circuit.connectors.map(({ id }) => id);
  const apart = [...relays, ...inlines.map(({ id }) => id), ...plugs];
  const test = (red: string, unplugged: string[]): OhmsTest => ({
    test: "ohms",
    red,
    black,
    unplugged,
  });
  return [
    ...fuses.flatMap((id) => [
      test(`${id}.out`, [id]),
      ...apart.map((other) => test(`${id}.out`, [id, other])),
      ...fuses.filter((other) => other !== id).map((other) => test(`${id}.out`, [id, other])),
    ]),
    ...relays.flatMap((id) =>
      ["30", "87", "86", "85"].map((terminal) =>
        test(netlist.points.pinOnTerminal.get(`${id}.${terminal}`) ?? `${id}.${terminal}`, [id]),
      ),
    ),
    ...inlines.flatMap(({ id, pins }) =>
      pins.flatMap((pin) => [test(`${id}.${pin}a`, [id]), test(`${id}.${pin}b`, [id])]),
    ),
    ...circuit.connectors.flatMap(({ id, pins }) =>
      Object.keys(pins).map((pin) => test(`${id}:${pin}`, [id])),
    ),
  ];
}

/** Ohms on the dead circuit with the battery disconnected, including parallel paths, as a meter sees them. */
export const ohmsTest = numberTest(ohmsReading, {
  figure: "ohms",
  minutes: 1.2,
  tools: ["meter"],
  form: {
    pick: { kind: "points", keys: ["red", "black"] },
    setup: "battery-off",
    targets: { point: 3 },
  },
  problems: (compiled, test) => [
    ...pointProblems(compiled, { red: test.red, black: test.black }),
    ...(test.key !== undefined && test.key !== "off"
      ? [
          {
            code: "contradiction" as const,
            path: "key",
            message: `ohms are measured with key "off", got "${test.key}"`,
          },
        ]
      : []),
  ],
  reaches: ({ red, black }, { netlist }) => [red, black, netlist.battery.id],
  candidates: (compiled) => [...partPairs(compiled), ...switchPairs(compiled)],
  shortHunt: toGround,
  value: (compiled, test) => {
    const red = nodeAt(compiled, test.red) ?? -1;
    const black = nodeAt(compiled, test.black) ?? -1;
    const between = compiled.ohmsBetween(test, red, black);
    return (row, sample) => between(row, sample) + usualLeadOhms;
  },
  sigma: (ohms) => 0.06 + (ohms < 1 ? 0.19 * (1 - ohms) : 0),
  guessedSigma: (ohms) => (ohms < noEndOhms ? guessedParts : 0),
  window,
  blind: (seen) => (seen > noEndOhms ? noEndShare : (1 - noEndShare) * (window / rangeLog)),
  scale,
  seen: ({ ohms }) => ohms ?? Number.POSITIVE_INFINITY,
  simulate: (vehicle, test) => {
    const ohms = vehicle.ohmsBetween(test, test.red, test.black);
    if (!(ohms < noEndOhms)) return { ohms: null };
    const { chance } = vehicle;
    const shown = ohms * (1 + chance.between(-0.01, 0.01)) + chance.between(0, leadOhms);
    return { ohms: Math.round(shown * 100) / 100 };
  },
  slip: ({ chance }) => ({ ohms: chance.uniform() < 0.5 ? null : chance.between(0, 5) }),
});
