import { deserialize } from "node:v8";
import { type DiagnoseOptions, type Diagnosis, diagnose } from "@core/diagnose/diagnose";
import type { Reading } from "@core/predict/reading";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";
import { diagnoseAside } from "../engine/engine.server";
import { type JobView, standingNumbers, standingReadings } from "./jobView.server";

/**
 * A diagnosis, or its bytes while nobody has asked for it: of some thirty worked ahead after an entry one or two are
 * looked at, and thousands of words kept as such have the collector of garbage hold the server up.
 */
type Worked = Diagnosis | Uint8Array;

/**
 * Diagnoses worked out lately, by circuit: the same readings weigh the same. Some thirty are worked ahead after every
 * entry; so many are kept that those before the last few entries are there for the one who takes them back.
 */
const worked = new WeakMap<CompiledCircuit, Map<string, Worked>>();
const mostWorked = 160;

/** Those being worked out. */
const coming = new WeakMap<CompiledCircuit, Map<string, Promise<Worked>>>();

/** What some readings of a job mean: how it is asked for, and what the answer is kept by. */
interface Question {
  readonly engine: CompiledCircuit;
  readonly readings: readonly Reading[];
  readonly asked: DiagnoseOptions;
  readonly key: string;
}

function question(
  { job, engine, costs, repairs, learnt }: JobView,
  readings: readonly Reading[],
  options: DiagnoseOptions,
): Question {
  const past = { repairs, counts: learnt.counts, familyCounts: learnt.ofFamily };
  return {
    engine,
    readings,
    asked: { school: job.school, costs, ...past, ...options },
    key: JSON.stringify([job.school, costs, past, options, readings]),
  };
}

/** Keeps what was worked out: taken out and put back, the newest stand last. */
function keep<T extends Worked>({ engine, key }: Question, made: T): T {
  const known = keptBy(worked, engine);
  known.delete(key);
  known.set(key, made);
  if (known.size > mostWorked) known.delete(known.keys().next().value as string);
  return made;
}

/** Worked out once, on a thread of its own where there is one. */
async function answerTo(asking: Question): Promise<Worked> {
  const { engine, readings, asked, key } = asking;
  const known = keptBy(worked, engine).get(key);
  if (known) return keep(asking, known);
  const awaited = keptBy(coming, engine);
  const made =
    awaited.get(key) ??
    diagnoseAside(engine, readings, asked)
      .then((aside) => keep(asking, aside ?? worksOut(engine, readings, asked)))
      .finally(() => awaited.delete(key));
  awaited.set(key, made);
  return made;
}

/** Works out what some readings of a job would mean, so that it is at hand when it is asked for. */
export async function workOutAhead(
  view: JobView,
  readings: readonly Reading[],
  options: DiagnoseOptions,
): Promise<void> {
  await answerTo(question(view, readings, options));
}

/** The diagnosis from some readings of a job. */
export async function diagnosisFrom(
  view: JobView,
  readings: readonly Reading[],
  options: DiagnoseOptions,
): Promise<Diagnosis> {
  const asking = question(view, readings, options);
  const made = await answerTo(asking);
  return made instanceof Uint8Array ? keep(asking, deserialize(made) as Diagnosis) : made;
}

/** A circuit's own part of what is kept. */
function keptBy<T>(all: WeakMap<CompiledCircuit, Map<string, T>>, engine: CompiledCircuit): Map<string, T> {
  const own = all.get(engine) ?? new Map<string, T>();
  all.set(engine, own);
  return own;
}

function worksOut(
  engine: CompiledCircuit,
  readings: readonly Reading[],
  options: DiagnoseOptions,
): Diagnosis {
  const diagnosis = diagnose(engine, readings, options);
  if (!diagnosis.ok) throw new Error(diagnosis.problems.map(problemText).join("; "));
  return diagnosis.value;
}

/** The diagnosis from the readings that stand, called by their numbers in the evidence. */
export const diagnosisOf = (view: JobView, options: DiagnoseOptions = {}): Promise<Diagnosis> =>
  diagnosisFrom(view, standingReadings(view), { ...options, numbers: standingNumbers(view) });

/** Belief that replacing some parts is the repair: that nothing outside them is at fault. */
export const beliefIn = (suspects: Diagnosis["suspects"], parts: readonly string[]): number =>
  suspects.reduce(
    (sum, { fault, p }) =>
      fault.split("+").every((one) => parts.includes(/^[^.:/@]+/.exec(one)?.[0] ?? "")) ? sum + p : sum,
    0,
  );
