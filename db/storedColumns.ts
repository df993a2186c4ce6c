// What the columns of the tables hold beyond plain numbers, words and moments. The repositories read them with these
// schemas, and a database from elsewhere is checked with them before it replaces the shop's.
import { parsePlan } from "@core/access/plan";
import { preferences } from "@core/access/route";
import { sortCountsSchema } from "@core/access/sortCount";
import { trayNoteKinds } from "@core/access/tray";
import { parseCircuit } from "@core/circuit/parseCircuit";
import { oldPartStates } from "@core/diagnose/history/failedRepair";
import { cautions } from "@core/diagnose/tests/caution";
import { strategies } from "@core/diagnose/tests/strategy";
import { practiceActSchema, practiceCaseSchema } from "@core/formats/practiceFile";
import { worksDone } from "@core/labour/workDone";
import { parsePart } from "@core/match/partDescription";
import { estimateLineSchema, roundingSchema } from "@core/money/estimateLine";
import { readingSchema } from "@core/predict/reading";
import { type Parsed, problemText } from "@core/problem/problem";
import { proofFindingSchema } from "@core/proof/proofFinding";
import { recordingRecordSchema } from "@core/recording/storedRecording";
import { closureSchema } from "@core/records/closure";
import { jobRefusalSchema, jobStages } from "@core/records/jobStage";
import { promiseSchema } from "@core/records/promise";
import { taughtSchema } from "@core/records/secondLook";
import { symptoms } from "@core/records/symptom";
import { draftBaseSchema, draftStepSchema } from "@core/trace/draft";
import { circuitNameSchema } from "@core/trace/traceCircuit";
import { partPlaces, plugPlaces } from "@core/wiring/place";
import { placeReadingSchema } from "@core/wiring/placeReading";
import { seenCarSchema } from "@core/wiring/seenCar";
import { workDetailSchema, workStates } from "@core/workList/workLine";
import { z } from "zod";

const parsedJson = z.string().transform((text, context) => {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    context.addIssue({ code: "custom", message: "is not valid JSON" });
    return z.NEVER;
  }
});

/** A column that holds JSON of a schema. */
const json = <Schema extends z.ZodType>(schema: Schema) => parsedJson.pipe(schema);

/** A column that holds JSON of a format of its own. */
const jsonBy = <Value>(parse: (input: unknown) => Parsed<Value>) =>
  parsedJson.transform((input, context) => {
    const parsed = parse(input);
    if (parsed.ok) return parsed.value;
    context.addIssue({ code: "custom", message: parsed.problems.map(problemText).join("; ") });
    return z.NEVER;
  });

const names = z.array(z.string());

/** The text that the shelf's list and search use, so that they need not read the circuit itself. */
const circuitAbout = z.object({
  family: z.object({
    control: z.enum(["resistor", "linear", "chopping", "switch"]),
    side: z.enum(["ground", "feed"]),
    speeds: z.number(),
    relays: z.number(),
    motors: z.number(),
    steering: z.enum(["left", "right"]).nullable(),
  }),
  /** Equal for circuits that only differ in their names. */
  shape: z.string(),
});
export type CircuitAbout = z.infer<typeof circuitAbout>;

const matchOverride = z.strictObject({ feature: z.string(), words: z.string(), at: z.iso.datetime() });
/** A difference a person judged harmless, with that person's words and the time. */
export type MatchOverride = z.infer<typeof matchOverride>;

/** The content of a version of an estimate: its lines, rounding, and currency. */
export const estimateBodySchema = z.strictObject({
  title: z.string().min(1).max(200),
  currency: z.string(),
  rounding: roundingSchema,
  lines: z.array(estimateLineSchema).max(100),
  /** The work list it was made from, in words, so that a later change of the list is seen. */
  works: z.array(z.string()).max(100).optional(),
});
export type EstimateBody = z.infer<typeof estimateBodySchema>;

/**
 * The state of a fitting: its final check is due; it failed; the repair held; it was undone unproven; or the vehicle
 * came back.
 */
export const fittingOutcomes = ["pending", "failed", "held", "withdrawn", "came-back"] as const;
export type FittingOutcome = (typeof fittingOutcomes)[number];

/** Columns by table. */
export const storedColumns = {
  circuits: {
    body: jsonBy(parseCircuit),
    about: z.union([z.literal("").transform(() => null), json(circuitAbout)]),
  },
  jobs: {
    stage: z.enum(jobStages),
    school: z.enum(strategies),
    cautionsRead: json(z.array(z.enum(cautions))),
    fitted: json(names).nullable(),
    promised: promiseSchema.nullable(),
  },
  readings: { body: json(readingSchema) },
  proofs: {
    body: json(proofFindingSchema),
    judged: z.enum(["right", "too-low", "too-high", "wrong"]),
  },
  traces: { record: json(recordingRecordSchema) },
  fittings: {
    parts: json(names),
    state: z.enum(["open", "settled", "best-guess"]),
    outcome: z.enum(fittingOutcomes),
    found: json(z.record(z.string(), z.enum(oldPartStates))).nullable(),
  },
  seenJobs: {
    seen: json(seenCarSchema),
    outOfReach: json(z.array(z.enum([...plugPlaces, ...partPlaces]))),
    cautionsRead: json(z.array(z.enum(cautions))),
  },
  seenReadings: { body: json(placeReadingSchema) },
  secondLooks: { before: json(taughtSchema), after: json(taughtSchema) },
  closures: { body: json(closureSchema), symptom: z.enum(symptoms) },
  drafts: {
    name: json(circuitNameSchema),
    base: json(draftBaseSchema),
    steps: json(z.array(draftStepSchema)),
  },
  planBodies: { body: jsonBy(parsePlan) },
  fits: { targets: json(names), prefer: z.enum(preferences) },
  works: { done: z.enum(worksDone), state: z.enum(workStates), body: json(workDetailSchema) },
  fitTicks: { way: z.enum(["in", "back"]), counts: json(sortCountsSchema).nullable() },
  trayNotes: { kind: z.enum(trayNoteKinds) },
  parts: { body: jsonBy(parsePart) },
  matches: { overrides: json(z.array(matchOverride)) },
  estimates: { kind: z.enum(["estimate", "bill"]), body: json(estimateBodySchema) },
  setAside: {
    // An address of one of the shop's jobs and nothing else, because kept entries are posted there again.
    address: z.string().regex(/^\/jobs\/\d+\/[a-z]+$/),
    fields: json(z.record(z.string(), z.string())),
    refusal: json(jobRefusalSchema),
  },
  events: { about: json(z.record(z.string(), z.unknown())).nullable() },
  practiceCases: { hidden: json(practiceCaseSchema) },
  practiceActs: { body: json(practiceActSchema) },
} as const;
