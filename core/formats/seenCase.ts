import { z } from "zod";
import { strategies } from "../diagnose/tests/strategy";
import type { StoppingCosts } from "../money/stoppingCosts";
import { allTools, type Tool } from "../predict/observations/tool";
import { type Parsed, type Problem, problemsOf, quoted, refused } from "../problem/problem";
import type { CandidateCache } from "../wiring/compiledCandidate";
import { diagnoseWiring, type WiringDiagnosis } from "../wiring/diagnoseWiring";
import { type PlaceReading, placeReadingSchema, placeTestNames } from "../wiring/placeReading";
import { type SeenCar, seenCarSchema } from "../wiring/seenCar";
import { shopCosts, shopSchema } from "./case";

/** The shape of an `airway-case` file of a vehicle whose diagram nobody has, version 1. */
export const seenCaseSchema = z.strictObject({
  format: z.literal("airway-case"),
  version: z.literal(1),
  id: z.string().max(100).optional(),
  seen: seenCarSchema,
  tools: z.array(z.enum(allTools)).max(20).optional(),
  school: z.enum(strategies).optional(),
  readings: z.array(placeReadingSchema).max(500),
  shop: shopSchema.optional(),
});

/** The same with readings still to be read one by one, so that a mistake in one is named by its own test. */
const outline = seenCaseSchema.extend({ readings: z.array(z.unknown()).max(500) });

/** A checked case of a vehicle without a diagram. */
export interface SeenCase {
  readonly id: string | null;
  readonly seen: SeenCar;
  readonly tools: readonly Tool[];
  readonly readings: readonly PlaceReading[];
  readonly costs: StoppingCosts;
}

/** Whether a file is a case without a circuit. */
export const isSeenCase = (input: unknown): boolean =>
  typeof input === "object" &&
  input !== null &&
  "seen" in input &&
  !("circuit" in input) &&
  !("circuitId" in input);

const named = z.looseObject({ test: z.string() });

/** A reading by place; refused by the shape of its own test that fits it best. */
function parseReading(input: unknown, index: number): Parsed<PlaceReading> {
  const parsed = placeReadingSchema.safeParse(input);
  if (parsed.success) return { ok: true, value: parsed.data };
  const at = (problems: readonly Problem[]): Parsed<PlaceReading> =>
    refused(
      problems.map(({ code, path, message }) => ({
        code,
        path: `readings.${index}${path === "" ? "" : `.${path}`}`,
        message,
      })),
    );
  const test = named.safeParse(input).data?.test;
  const isAbsent = typeof input === "object" && input !== null && "absent" in input;
  const failed = placeReadingSchema.options
    .filter(({ shape }) => shape.test.safeParse(test).success && "absent" in shape === isAbsent)
    .map((option) => option.safeParse(input))
    .flatMap(({ error }) => (error ? [problemsOf(error, input)] : []))
    .sort((a, b) => a.length - b.length);
  return at(
    failed[0] ?? [
      {
        code: "wrong-value",
        path: "test",
        message: `expected one of ${placeTestNames.join(", ")}, got ${quoted(test)}`,
      },
    ],
  );
}

/** Reads an `airway-case` of a vehicle without a diagram. */
export function parseSeenCase(input: unknown): Parsed<SeenCase> {
  const shaped = outline.safeParse(input);
  if (!shaped.success) return refused(problemsOf(shaped.error, input));
  const { id, seen, tools, readings, shop } = shaped.data;
  const read: PlaceReading[] = [];
  for (const [index, reading] of readings.entries()) {
    const parsed = parseReading(reading, index);
    if (!parsed.ok) return parsed;
    read.push(parsed.value);
  }
  return {
    ok: true,
    value: { id: id ?? null, seen, tools: tools ?? allTools, readings: read, costs: shopCosts(shop) },
  };
}

/** The diagnosis of a case without a circuit. */
export interface DiagnosedSeenCase {
  readonly id: string | null;
  readonly diagnosis: WiringDiagnosis;
}

/** Reads an `airway-case` without a circuit and diagnoses it. */
export function diagnoseSeenCase(input: unknown, cache: CandidateCache): Parsed<DiagnosedSeenCase> {
  const found = parseSeenCase(input);
  if (!found.ok) return found;
  const { id, seen, readings, tools, costs } = found.value;
  return { ok: true, value: { id, diagnosis: diagnoseWiring(seen, readings, cache, { tools, costs }) } };
}
