import { z } from "zod";
import type { Circuit } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import { schools } from "../diagnose/school";
import { type Reading, readingSchema } from "../predict/reading";
import { allTools, type Tool } from "../predict/testModel";
import type { CircuitLibrary } from "./library";
import { type Parsed, problemsOf, refused } from "./problem";

/** The shape of an `airway-case` file, version 1; its circuit and readings are checked on reading. */
export const caseSchema = z.strictObject({
  format: z.literal("airway-case"),
  version: z.literal(1),
  id: z.string().max(100).optional(),
  circuit: z.unknown().optional(),
  circuitId: z.string().max(64).optional(),
  tools: z.array(z.enum(allTools)).max(20).optional(),
  school: z.enum(schools).optional(),
  readings: z.array(readingSchema).max(500),
});

/** A case read and checked, its circuit found. */
export interface Case {
  readonly id: string | null;
  readonly circuit: Circuit;
  readonly tools: readonly Tool[];
  readonly school: (typeof schools)[number];
  readonly readings: readonly Reading[];
}

/**
 * Reads an `airway-case` (version 1).
 * @param library finds a circuit by id where the case names one instead of holding it
 */
export function parseCase(input: unknown, library: CircuitLibrary): Parsed<Case> {
  const shaped = caseSchema.safeParse(input);
  if (!shaped.success) return refused(problemsOf(shaped.error, input));
  const { data } = shaped;
  const circuit = caseCircuit(data, library);
  if (!circuit.ok) return circuit;
  return {
    ok: true,
    value: {
      id: data.id ?? null,
      circuit: circuit.value,
      tools: data.tools ?? allTools,
      school: data.school ?? "least-time",
      readings: data.readings,
    },
  };
}

function caseCircuit(data: z.infer<typeof caseSchema>, library: CircuitLibrary): Parsed<Circuit> {
  if (data.circuit !== undefined && data.circuitId !== undefined)
    return refused([{ path: "circuitId", message: "give circuit or circuitId, not both" }]);
  if (data.circuit !== undefined) {
    const parsed = parseCircuit(data.circuit);
    return parsed.ok
      ? parsed
      : refused(
          parsed.problems.map(({ path, message }) => ({
            path: path ? `circuit.${path}` : "circuit",
            message,
          })),
        );
  }
  if (data.circuitId === undefined)
    return refused([{ path: "circuit", message: "expected a circuit, or a circuitId from the library" }]);
  const found = library(data.circuitId);
  return found
    ? { ok: true, value: found }
    : refused([
        { path: "circuitId", message: `no circuit ${JSON.stringify(data.circuitId)} in the library` },
      ]);
}
