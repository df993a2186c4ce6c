import { z } from "zod";
import type { Circuit } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import type { FaultCount } from "../diagnose/belief/learnedPrior";
import type { EarlierVisit } from "../diagnose/history/earlierVisit";
import { type FailedRepair, oldPartStates } from "../diagnose/history/failedRepair";
import { strategies } from "../diagnose/tests/strategy";
import { theCar } from "../fault/repair";
import { defaultStoppingCosts, type StoppingCosts } from "../money/stoppingCosts";
import { allTools, type Tool } from "../predict/observations/tool";
import { type Reading, readingSchema } from "../predict/reading";
import { type Parsed, type Problem, problemsOf, quoted, refused } from "../problem/problem";
import { type WorkInFile, workInFileSchema } from "../workList/workLine";
import type { CircuitLibrary } from "./library";

const repairCost = z.strictObject({
  priceMinor: z.number().int().min(0).max(1e9),
  minutes: z.number().min(0).max(10_000),
});

/** A shop's own costs and counts; every key has a default. */
export const shopSchema = z.strictObject({
  hourMinor: z.number().int().min(0).max(1e9).optional(),
  comebackMinor: z.number().int().min(0).max(1e9).optional(),
  settledBar: z.number().min(0.5).max(0.999).optional(),
  repairs: z.record(z.string().max(32), repairCost).optional(),
  counts: z
    .array(
      z.strictObject({
        kind: z.string().max(64),
        mode: z.string().max(64),
        n: z.number().int().min(0).max(1e6),
      }),
    )
    .max(500)
    .optional(),
});

const failedRepairsSchema = z
  .array(
    z.strictObject({
      after: z.number().int().min(0).max(500),
      parts: z.array(z.string().min(1).max(32)).min(1).max(8),
      /** What the old parts turned out to be, by part, as far as somebody looked. */
      found: z.record(z.string().max(32), z.enum(oldPartStates)).optional(),
    }),
  )
  .max(20);

/** The shape of an `airway-case` file, version 1; its circuit and readings are checked on reading. */
export const caseSchema = z.strictObject({
  format: z.literal("airway-case"),
  version: z.literal(1),
  id: z.string().max(100).optional(),
  circuit: z.unknown().optional(),
  circuitId: z.string().max(64).optional(),
  tools: z.array(z.enum(allTools)).max(20).optional(),
  school: z.enum(strategies).optional(),
  readings: z.array(readingSchema).max(500),
  /** Repairs that did not fix the fault: the parts replaced, and after how many of the readings. */
  repairs: failedRepairsSchema.optional(),
  /** The work list: what was done and what is planned, round by round. */
  works: z.array(workInFileSchema).max(200).optional(),
  /** The visit that this one is a comeback of. */
  earlier: z
    .strictObject({
      readings: z.array(readingSchema).max(500),
      repairs: failedRepairsSchema.optional(),
      parts: z.array(z.string().min(1).max(32)).max(8),
    })
    .optional(),
  shop: shopSchema.optional(),
});

/** A checked case with its circuit. */
export interface Case {
  readonly id: string | null;
  readonly circuit: Circuit;
  readonly tools: readonly Tool[];
  readonly school: (typeof strategies)[number];
  readonly readings: readonly Reading[];
  readonly repairs: readonly FailedRepair[];
  /** The visit that it is a comeback of; null if it is none. */
  readonly earlier: EarlierVisit | null;
  readonly works: readonly WorkInFile[];
  readonly costs: StoppingCosts;
  readonly counts: readonly FaultCount[];
}

/**
 * Reads an `airway-case` (version 1).
 * @param library finds a circuit by id if the case names one instead of containing it
 */
export function parseCase(input: unknown, library: CircuitLibrary): Parsed<Case> {
  const shaped = caseSchema.safeParse(input);
  if (!shaped.success) return refused(problemsOf(shaped.error, input));
  const { data } = shaped;
  const circuit = caseCircuit(data, library);
  if (!circuit.ok) return circuit;
  const late = data.repairs?.findIndex(({ after }) => after > data.readings.length) ?? -1;
  if (late >= 0)
    return refused([
      {
        code: "no-such-thing",
        path: `repairs.${late}.after`,
        message: `there are ${data.readings.length} readings`,
      },
    ]);
  const rounds = 1 + (data.repairs?.length ?? 0);
  const beyond = data.works?.findIndex(({ round }) => round > rounds) ?? -1;
  if (beyond >= 0)
    return refused([
      {
        code: "no-such-thing",
        path: `works.${beyond}.round`,
        message: `the last round is ${rounds}, because every failed repair begins one`,
      },
    ]);
  const strange = strangePart(data.repairs ?? [], circuit.value);
  if (strange) return refused([strange]);
  return {
    ok: true,
    value: {
      id: data.id ?? null,
      circuit: circuit.value,
      tools: data.tools ?? allTools,
      school: data.school ?? "least-time",
      readings: data.readings,
      repairs: data.repairs ?? [],
      earlier: data.earlier ? { ...data.earlier, repairs: data.earlier.repairs ?? [] } : null,
      works: data.works ?? [],
      costs: shopCosts(data.shop),
      counts: data.shop?.counts ?? [],
    },
  };
}

/** The first part named as replaced that the circuit does not have. */
function strangePart(repairs: readonly FailedRepair[], circuit: Circuit): Problem | null {
  const known = new Set([...circuit.parts, ...circuit.connectors, ...circuit.wires].map(({ id }) => id));
  for (const [index, { parts }] of repairs.entries())
    for (const [at, part] of parts.entries())
      if (part !== theCar && !known.has(part))
        return {
          code: "no-such-thing",
          path: `repairs.${index}.parts.${at}`,
          message: `the circuit has no ${quoted(part)}`,
        };
  return null;
}

/** A shop's own costs, with the defaults where it gives none. */
export function shopCosts(shop: z.infer<typeof shopSchema> = {}): StoppingCosts {
  return {
    hourMinor: shop.hourMinor ?? defaultStoppingCosts.hourMinor,
    comebackMinor: shop.comebackMinor ?? defaultStoppingCosts.comebackMinor,
    settledBar: shop.settledBar ?? defaultStoppingCosts.settledBar,
    repairs: shop.repairs,
  };
}

function caseCircuit(data: z.infer<typeof caseSchema>, library: CircuitLibrary): Parsed<Circuit> {
  if (data.circuit !== undefined && data.circuitId !== undefined)
    return refused([
      { code: "contradiction", path: "circuitId", message: "give circuit or circuitId, not both" },
    ]);
  if (data.circuit !== undefined) {
    const parsed = parseCircuit(data.circuit);
    return parsed.ok
      ? parsed
      : refused(
          parsed.problems.map(({ code, path, message }) => ({
            code,
            path: path ? `circuit.${path}` : "circuit",
            message,
          })),
        );
  }
  if (data.circuitId === undefined)
    return refused([
      {
        code: "wrong-value",
        path: "circuit",
        message: "expected a circuit, or a circuitId from the library",
      },
    ]);
  const found = library(data.circuitId);
  return found
    ? { ok: true, value: found }
    : refused([
        {
          code: "no-such-thing",
          path: "circuitId",
          message: `no circuit ${JSON.stringify(data.circuitId)} in the library`,
        },
      ]);
}
