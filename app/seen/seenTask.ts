import type { Circuit } from "@core/circuit/circuit";
import { problemText } from "@core/problem/problem";
import { type CarriedReadings, carriedTo } from "@core/wiring/carriedReadings";
import { CandidateCache } from "@core/wiring/compiledCandidate";
import { diagnoseWiring, type WiringOptions } from "@core/wiring/diagnoseWiring";
import { type LearnedCircuit, learnedCircuit } from "@core/wiring/learnedCircuit";
import type { PlaceReading } from "@core/wiring/placeReading";
import type { SeenCar } from "@core/wiring/seenCar";
import { believeWiring } from "@core/wiring/wiringBelief";
import { type SeenDiagnosis, seenDiagnosis } from "./seenDiagnosis";

/** What a job without a diagram is diagnosed from. */
export interface SeenFacts {
  readonly seen: SeenCar;
  readonly readings: readonly PlaceReading[];
  readonly options: WiringOptions;
}

export type SeenTask = { readonly id: number } & SeenFacts &
  (
    | { readonly does: "diagnose" }
    /** Makes the ways to wire a vehicle ready, so that its first diagnosis is quick. */
    | { readonly does: "prepare" }
    /** Carries the readings over to a circuit whose diagram was found after all. */
    | { readonly does: "carry"; readonly circuit: Circuit }
    | { readonly does: "learn"; readonly identity: { readonly id: string; readonly title: string } }
  );

export type SeenNews =
  | { readonly id: number; readonly diagnosis: SeenDiagnosis }
  | { readonly id: number; readonly learned: LearnedCircuit }
  | { readonly id: number; readonly carried: CarriedReadings }
  | { readonly id: number; readonly ready: true }
  | { readonly id: number; readonly problem: string };

/** Ways to wire a vehicle, compiled once for as long as the process or thread lives. */
const cache = new CandidateCache();

/** Does one task, in a thread or without one. */
export function doSeenTask(task: SeenTask): SeenNews {
  const { id, seen, readings, options } = task;
  if (task.does === "learn") {
    const learned = learnedCircuit(believeWiring(seen, readings, cache), seen, readings, task.identity);
    return learned.ok
      ? { id, learned: learned.value }
      : { id, problem: learned.problems.map(problemText).join("; ") };
  }
  if (task.does === "carry") {
    const carried = carriedTo(task.circuit, readings);
    return carried.ok
      ? { id, carried: carried.value }
      : { id, problem: carried.problems.map(problemText).join("; ") };
  }
  const diagnosis = diagnoseWiring(seen, readings, cache, options);
  if (task.does === "prepare") return { id, ready: true };
  return { id, diagnosis: seenDiagnosis(diagnosis, seen, readings) };
}
