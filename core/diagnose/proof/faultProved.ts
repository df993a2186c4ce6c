import type { Reading } from "../../predict/reading";
import type { CompiledCircuit } from "../../predict/tables/compiledCircuit";
import { counting, proofLines, shownBy } from "./proofLines";

/**
 * Whether readings prove one fault: each of its parts has a line of its proofs with every step shown.
 * @param variant of the fault among the circuit's variants
 */
export function faultProved(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  variant: number,
): boolean {
  const counts = counting(readings);
  const lines = proofLines(compiled, variant);
  return (
    lines.length > 0 &&
    lines.every((own) => own.some((line) => shownBy(line, readings, counts).every((place) => place !== null)))
  );
}
