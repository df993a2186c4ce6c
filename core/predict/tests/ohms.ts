import type { CompiledCircuit } from "../compiledCircuit";
import { nodeAt, pointProblems } from "../probePoints";
import type { LookOf } from "../reading";
import type { NumberTest } from "../testModel";

/** Above this a meter shows no end. */
const noEndOhms = 2e6;
const leadOhms = 0.1;

/** Log scale that is linear below the meter's own 0.1 Ω and ends at "no end". */
const scale = (ohms: number): number => Math.log(Math.min(ohms, noEndOhms) + leadOhms);

/** Ways to measure a pack or a motor on its own: its plug off, every pair of its plugged terminals. */
function partPairs(compiled: CompiledCircuit): LookOf<"ohms">[] {
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

/** Ohms on the dead circuit, battery off: parallel paths and all, as a meter sees them. */
export const ohmsTest: NumberTest<"ohms"> = {
  test: "ohms",
  gives: "number",
  minutes: 1.2,
  tool: "meter",
  problems: (compiled, look) => [
    ...pointProblems(compiled, { red: look.red, black: look.black }),
    ...(look.key !== undefined && look.key !== "off"
      ? [{ path: "key", message: `ohms are measured with key "off", got "${look.key}"` }]
      : []),
  ],
  reaches: ({ red, black }, { netlist }) => [red, black, netlist.battery.id],
  candidates: partPairs,
  value: (compiled, look) => {
    const red = nodeAt(compiled, look.red) ?? -1;
    const black = nodeAt(compiled, look.black) ?? -1;
    const column = compiled.ohmsBetween(look, red, black);
    return (row) => column[row] as number;
  },
  sigma: (ohms) => 0.06 + (ohms < 1 ? 0.12 * (1 - ohms) : 0),
  window: 0.15,
  range: 6,
  scale,
  seen: ({ ohms }) => ohms ?? Number.POSITIVE_INFINITY,
};
