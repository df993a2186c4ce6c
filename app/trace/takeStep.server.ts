import { problemText } from "@core/problem/problem";
import { type DraftStep, draftState } from "@core/trace/draft";
import { addDraftStep, type Draft } from "@db/repositories/drafts.server";
import { randomId } from "../text/randomId";
import { stateOf } from "./draftView.server";

/** Why a draft did not take a step. */
export interface Refused {
  /** The question, or the intent, that was refused. */
  readonly of: string;
  readonly problems: readonly string[];
}

/**
 * Takes a step if it leads to a circuit. Otherwise says why, and the draft stays unchanged.
 * @param of the question, or the intent, named in a refusal
 * @param stepId the same step sent twice is stored once
 */
export async function takeStep(
  draft: Draft,
  step: DraftStep,
  of: string,
  stepId: string = randomId(),
): Promise<Refused | undefined> {
  const { base, name, steps, position } = draft;
  const before = stateOf(draft);
  const next = draftState(base, name, [...steps.slice(0, position), step]);
  if (!next.ok) return { of, problems: next.problems.map(problemText) };
  const lost = next.value.dropped.at(-1);
  if (step.step === "edit" && next.value.dropped.length > before.dropped.length && lost)
    return { of, problems: [problemText(lost.problem)] };
  await addDraftStep(draft.id, step, stepId);
  return undefined;
}
