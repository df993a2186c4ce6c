import { z } from "zod";
import { type Circuit, circuitSchema } from "../circuit/circuit";
import { type CircuitEdit, circuitEditSchema, editedAtOnce, editedCircuit } from "../circuit/circuitEdit";
import { parseCircuit } from "../circuit/parseCircuit";
import { type Parsed, type Problem, problemsOf, refused } from "../problem/problem";
import { type TraceAnswers, type TraceQuestionId, traceAnswerSchemas, traceQuestionIds } from "./traceAnswer";
import { type CircuitName, traceCircuit } from "./traceCircuit";

/** The start of a draft: questions, some of them answered by its family; or an existing circuit. */
export const draftBaseSchema = z.discriminatedUnion("kind", [
  z.strictObject({
    kind: z.literal("trace"),
    answers: z.partialRecord(
      z.enum(traceQuestionIds as [TraceQuestionId, ...TraceQuestionId[]]),
      z.unknown(),
    ),
  }),
  z.strictObject({ kind: z.literal("circuit"), circuit: circuitSchema }),
]);
export type DraftBase = z.infer<typeof draftBaseSchema>;

const answerStep = z.strictObject({
  step: z.literal("answer"),
  question: z.enum(traceQuestionIds as [TraceQuestionId, ...TraceQuestionId[]]),
  /** Null if it is not known. */
  answer: z.unknown(),
});
const editStep = z.strictObject({ step: z.literal("edit"), edit: circuitEditSchema });

/** One step of a draft: an answer, or a change made in a table. Undo removes one step. */
export const draftStepSchema = z.discriminatedUnion("step", [answerStep, editStep]);
export type DraftStep = z.infer<typeof draftStepSchema>;

/** The result of a draft. */
export interface DraftState {
  readonly circuit: Circuit;
  /** Null for a draft that did not start with questions. */
  readonly answers: TraceAnswers | null;
  /** Changes made in a table that no longer fit the later answers. */
  readonly dropped: readonly { readonly edit: CircuitEdit; readonly problem: Problem }[];
}

/** An answer checked against its question's kind; any other is refused with the place that is wrong. */
export function parseAnswer(question: TraceQuestionId, answer: unknown): Parsed<unknown> {
  if (answer === null) return { ok: true, value: null };
  const parsed = traceAnswerSchemas[question].safeParse(answer);
  return parsed.success ? { ok: true, value: parsed.data } : refused(problemsOf(parsed.error, answer));
}

/**
 * The circuit of a draft's steps. Answers make the circuit; then changes made in tables are applied again. Those that
 * no longer fit are reported, not lost: undoing the answer brings them back.
 * @returns refused if the answers themselves make no circuit (two parts with one name)
 */
export function draftState(
  base: DraftBase,
  name: CircuitName,
  steps: readonly DraftStep[],
): Parsed<DraftState> {
  const edits = steps.flatMap((one) => (one.step === "edit" ? [one.edit] : []));
  if (base.kind === "circuit") return edited({ ...base.circuit, ...name }, null, edits);
  const given = [
    ...Object.entries(base.answers).map(([question, answer]) => ({ question, answer })),
    ...steps.filter((one) => one.step === "answer"),
  ];
  const answers: Record<string, unknown> = {};
  for (const { question, answer } of given) {
    const parsed = parseAnswer(question as TraceQuestionId, answer);
    if (!parsed.ok) return parsed;
    answers[question] = parsed.value;
  }
  const traced = traceCircuit(name, answers);
  const twice = namedTwice(traced);
  if (twice)
    return refused([{ code: "duplicate", path: "", message: `${twice} cannot be the name of two things` }]);
  const made = parseCircuit(traced);
  return made.ok ? edited(made.value, answers, edits) : made;
}

/** The first name that two parts or plugs share; null if there is none. */
function namedTwice({ parts, connectors }: Circuit): string | null {
  const ids = [...parts, ...connectors].map(({ id }) => id);
  return ids.find((id, index) => ids.indexOf(id) < index) ?? null;
}

function edited(
  circuit: Circuit,
  answers: TraceAnswers | null,
  edits: readonly CircuitEdit[],
): Parsed<DraftState> {
  // Nearly always all of them fit, so one check is enough instead of one for each change.
  const whole = editedAtOnce(circuit, edits);
  if (whole.ok) return { ok: true, value: { circuit: whole.value, answers, dropped: [] } };
  let made = circuit;
  const dropped: { edit: CircuitEdit; problem: Problem }[] = [];
  for (const edit of edits) {
    const next = editedCircuit(made, edit);
    if (next.ok) made = next.value;
    else dropped.push({ edit, problem: next.problems[0] as Problem });
  }
  return { ok: true, value: { circuit: made, answers, dropped } };
}
