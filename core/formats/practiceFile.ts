import { z } from "zod";
import type { Circuit } from "../circuit/circuit";
import { circuitSchema } from "../circuit/circuit";
import { parseCircuit } from "../circuit/parseCircuit";
import { placeFault } from "../fault/fault";
import { type FaultName, faultId, parseFaultId } from "../fault/faultId";
import type { PracticeAct } from "../practice/practiceBay";
import {
  type PracticeKind,
  type PracticeLevel,
  practiceKinds,
  practiceLevels,
} from "../practice/practiceCase";
import { readingSchema } from "../predict/reading";
import { type Parsed, problemsOf, refused } from "../problem/problem";
import { buildNetlist } from "../solve/buildNetlist";

const minutes = z.number().min(0).max(100_000);
const minor = z.number().int().min(0).max(1e9);
const id = z.string().min(1).max(64);

/** A test as it was asked for; its use checks it against the circuit. */
const lookSchema = z.looseObject({ test: z.string() });

/** One action in the practice bay, as stored. */
export const practiceActSchema = z.discriminatedUnion("act", [
  z.strictObject({
    act: z.literal("look"),
    reading: readingSchema,
    minutes,
    woke: z.boolean().optional(),
    rpm: z.number().optional(),
  }),
  z.strictObject({ act: z.literal("open"), place: id, minutes }),
  z.strictObject({ act: z.literal("ask"), look: lookSchema.nullable(), minutes }),
  z.strictObject({
    act: z.literal("fit"),
    parts: z.array(id).min(1).max(20),
    odds: z.number().min(0).max(1),
    opened: z.array(id).max(100),
    minutes,
    priceMinor: minor,
  }),
  z.strictObject({
    act: z.literal("drive"),
    held: z.boolean(),
    minutes,
    costMinor: minor,
    complaint: z.array(readingSchema).max(100),
  }),
  z.strictObject({ act: z.literal("give-up"), minutes }),
]);

/**
 * Reads a stored action.
 * @throws if it is none, since only Airway writes them
 */
export const parsePracticeAct = (body: string): PracticeAct =>
  practiceActSchema.parse(JSON.parse(body)) as PracticeAct;

const faultNameSchema = z.strictObject({
  where: z.string().min(1).max(80),
  mode: z.string().min(1).max(32),
  value: z.number().positive().nullable(),
});

/** A case with its hidden fault, as stored. */
export const practiceCaseSchema = z.strictObject({
  level: z.enum(practiceLevels),
  kind: z.enum(practiceKinds),
  fault: z.array(faultNameSchema).min(1).max(4),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31),
  complaint: z.array(readingSchema).max(100),
});

/** The shape of an `airway-practice` file, version 1: a case a trainer set, with its circuit. */
export const practiceFileSchema = z.strictObject({
  format: z.literal("airway-practice"),
  version: z.literal(1),
  title: z.string().min(1).max(120),
  level: z.enum(practiceLevels),
  kind: z.enum(practiceKinds),
  circuit: circuitSchema,
  /**
   * The fault and the vehicle's seed in hexadecimal ASCII: hidden from a glance, not from someone who wants to know.
   */
  sealed: z.string().regex(/^(?:[0-9a-f]{2}){1,400}$/, "must be hexadecimal"),
});

/** A case as a trainer shares it. */
export interface SharedCase {
  readonly title: string;
  readonly level: PracticeLevel;
  readonly kind: PracticeKind;
  readonly circuit: Circuit;
  readonly fault: readonly FaultName[];
  readonly seed: number;
}

const seal = (text: string): string =>
  Array.from(text, (letter) => letter.charCodeAt(0).toString(16).padStart(2, "0")).join("");
const unseal = (sealed: string): string =>
  (sealed.match(/../g) ?? []).map((pair) => String.fromCharCode(Number.parseInt(pair, 16))).join("");

/** Writes a case for sharing. */
export const practiceFile = ({ title, level, kind, circuit, fault, seed }: SharedCase) => ({
  format: "airway-practice" as const,
  version: 1 as const,
  title,
  level,
  kind,
  circuit,
  sealed: seal(`${seed} ${faultId(fault)}`),
});

/**
 * Reads a shared case. Refused if it is not one, if its circuit is not valid, or if the circuit cannot have its fault.
 */
export function parsePracticeFile(input: unknown): Parsed<SharedCase> {
  const parsed = practiceFileSchema.safeParse(input);
  if (!parsed.success) return refused(problemsOf(parsed.error, input));
  const circuit = parseCircuit(parsed.data.circuit);
  if (!circuit.ok)
    return refused(
      circuit.problems.map(({ code, path, message }) => ({ code, path: `circuit.${path}`, message })),
    );
  const [seed = "", ...rest] = unseal(parsed.data.sealed).split(" ");
  const names = parseFaultId(rest.join(" "));
  const netlist = buildNetlist(circuit.value);
  const placed = names.ok && netlist.ok ? placeFault(netlist.value, names.value) : null;
  if (!/^\d{1,10}$/.test(seed) || !names.ok || !placed?.ok)
    return refused([
      { code: "unreadable", path: "sealed", message: "does not hold a fault this circuit can have" },
    ]);
  const { title, level, kind } = parsed.data;
  return {
    ok: true,
    value: { title, level, kind, circuit: circuit.value, fault: names.value, seed: Number(seed) },
  };
}
