import type { Circuit } from "@core/circuit/circuit";
import { diagnose } from "@core/diagnose/diagnose";
import { problemText } from "@core/problem/problem";
import { percent } from "@core/units/wording";
import { findCircuit } from "@db/repositories/circuits.server";
import type { Job } from "@db/repositories/jobs.server";
import { readingsOf } from "@db/repositories/readings.server";
import { repairName } from "@words/partName";
import { engineFor } from "../engine/engine.server";

/** What a job's readings mean with its present version and with the newest, or why it cannot be moved. */
export type JobMove =
  | { readonly before: string; readonly after: string }
  | { readonly problems: readonly string[] };

const leaders = 2;
const mostProblems = 6;

/** The likeliest parts under a circuit: `resistor pack R1 83 %, blower motor M1 8 %`. */
async function beliefUnder(circuit: Circuit, job: Job): Promise<{ text: string } | { problems: string[] }> {
  const readings = (await readingsOf(job.id)).flatMap(({ reading, struckAt }) => (struckAt ? [] : [reading]));
  const diagnosis = diagnose(await engineFor(circuit), readings, { school: job.school });
  if (!diagnosis.ok) return { problems: diagnosis.problems.slice(0, mostProblems).map(problemText) };
  const text = diagnosis.value.parts
    .slice(0, leaders)
    .map(({ part, p }) => `${part === null ? "something else" : repairName(circuit, [part])} ${percent(p)}`)
    .join(", ");
  return { text };
}

/** Compares a job on another version of its circuit; a reading at a point that no longer exists forbids the move. */
export async function weighMove(job: Job, newest: Circuit): Promise<JobMove> {
  const own = await findCircuit(job.circuitId);
  if (!own) return { problems: ["Its own version no longer exists."] };
  const after = await beliefUnder(newest, job);
  if ("problems" in after) return after;
  const before = await beliefUnder(own, job);
  return "problems" in before ? before : { before: before.text, after: after.text };
}
