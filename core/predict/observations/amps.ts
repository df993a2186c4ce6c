import type { TestOf } from "../reading";
import type { CompiledCircuit } from "../tables/compiledCircuit";
import type { NumberObservation } from "./observation";

/** The clamp's own 3 % + 0.3 A, widened for what the drawn vehicles leave out (judgement). */
const clampShare = 0.04;
const clampAmps = 0.4;

const windowAmps = 0.6;
const rangeAmps = 30;

function isClampable(compiled: CompiledCircuit, around: string): boolean {
  const { circuit, motors } = compiled.netlist;
  return circuit.wires.some(({ id }) => id === around) || motors.some(({ part }) => part.id === around);
}

/** Amps through a wire or a motor, by a clamp. */
export const ampsTest: NumberObservation<"amps"> = {
  test: "amps",
  gives: "number",
  minutes: 1,
  tools: ["clamp"],
  problems: (compiled, { around }) =>
    isClampable(compiled, around)
      ? []
      : [{ path: "around", message: `no wire or motor ${JSON.stringify(around)}` }],
  reaches: ({ around }) => [around],
  candidates: (compiled) =>
    compiled.netlist.motors.flatMap(({ part }) =>
      compiled.runningSetups().map((setup) => ({ test: "amps" as const, around: part.id, ...setup })),
    ),
  value: (compiled, test: TestOf<"amps">) => {
    const table = compiled.table(test);
    const branch = compiled.netlist.branchOf.get(test.around) ?? 0;
    return (row, sample) => table.ampsAt(row, sample, branch);
  },
  sigma: (amps) => clampAmps + clampShare * Math.abs(amps),
  window: windowAmps,
  blind: (amps) => (Math.abs(amps) < 1 ? 0.3 / 3 : 0.7 * (windowAmps / rangeAmps)),
  scale: (amps) => amps,
  seen: ({ amps }) => amps,
};
