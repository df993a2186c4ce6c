import { type DiagnoseOptions, type Diagnosis, diagnose } from "@core/diagnose/diagnose";
import { notListed } from "@core/fault/repair";
import { mends } from "@core/labour/workDone";
import type { Reading } from "@core/predict/reading";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";
import { type Cure, partsRepaired } from "@core/workList/workLine";
import { LRUCache } from "lru-cache";
import { activeNumbers, activeReadings, type JobFacts, type JobView } from "./jobView.server";

/**
 * Number of diagnoses stored for each circuit, because several pages of a job ask for the same one. A hundred of them
 * take some 6 MB.
 */
const diagnosesKept = 40;
const kept = new WeakMap<CompiledCircuit, LRUCache<string, Diagnosis>>();

/** What a job's diagnosis uses in addition to its readings. */
export const diagnoseOptions = ({ job, costs, repairs, earlier, learnt }: JobFacts): DiagnoseOptions => ({
  school: job.school,
  costs,
  repairs,
  earlier,
  counts: learnt.counts,
  familyCounts: learnt.ofFamily,
});

/** The diagnosis from some readings of a job; computed once for the same input. */
export function diagnosisFrom(
  view: JobView,
  readings: readonly Reading[],
  options: DiagnoseOptions,
): Diagnosis {
  const { engine } = view;
  const asked: DiagnoseOptions = { ...diagnoseOptions(view), ...options };
  const own = kept.get(engine) ?? new LRUCache<string, Diagnosis>({ max: diagnosesKept });
  kept.set(engine, own);
  const key = JSON.stringify([asked, readings]);
  const known = own.get(key);
  if (known) return known;
  const diagnosis = diagnose(engine, readings, asked);
  if (!diagnosis.ok) throw new Error(diagnosis.problems.map(problemText).join("; "));
  own.set(key, diagnosis.value);
  return diagnosis.value;
}

/** The diagnosis from a job's active readings, with their numbers in the evidence. */
export const diagnosisOf = (view: JobView, options: DiagnoseOptions = {}): Diagnosis =>
  diagnosisFrom(view, activeReadings(view), { ...options, numbers: activeNumbers(view) });

/**
 * Probability that some lines of work are the whole repair. Work on something outside the circuit may also cure a fault
 * that the circuit does not explain.
 */
export const beliefCured = (suspects: Diagnosis["suspects"], lines: readonly Cure[]): number =>
  beliefIn(suspects, partsRepaired(lines)) +
  (lines.some(({ part, done }) => part === undefined && mends(done))
    ? suspects.reduce((sum, { repair, p }) => (repair === notListed ? sum + p : sum), 0)
    : 0);

/** Belief that replacing some parts is the whole repair, with no fault outside them. */
export const beliefIn = (suspects: Diagnosis["suspects"], parts: readonly string[]): number =>
  suspects.reduce(
    (sum, { repair, p }) =>
      repair !== notListed && repair.parts.every((part) => parts.includes(part)) ? sum + p : sum,
    0,
  );
