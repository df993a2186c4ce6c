import { randomInt } from "node:crypto";
import { exerciseOn } from "@core/practice/curriculum";
import type { Exercise } from "@core/practice/exercise";
import {
  type PracticeCase,
  type PracticeCircuit,
  type PracticeKind,
  type PracticeLevel,
  practiceCircuit,
  tryCase,
} from "@core/practice/practiceCase";
import { findCircuit, listCircuits } from "@db/repositories/circuits.server";
import { data } from "react-router";
import { engineFor } from "../engine/engine.server";

/** A circuit of the shelf compiled for practice; answers 404 if there is none. */
export async function practiceCircuitAt(rowId: string): Promise<PracticeCircuit> {
  const circuit = await findCircuit(rowId);
  if (!circuit) throw data("There is no such circuit.", { status: 404 });
  return practiceCircuit(await engineFor(circuit));
}

const mostTries = 60;

/** A seed nobody can guess, because the fault can be derived from it. */
export const freshSeed = (): number => randomInt(1, 2 ** 31 - 1);

/** Draws vehicles until one is worth practising on; null if none is found in reasonable time. */
export async function sampleCase(
  on: PracticeCircuit,
  level: PracticeLevel,
  kind: PracticeKind | null,
): Promise<PracticeCase | null> {
  for (let tries = 0; tries < mostTries; tries++) {
    const made = tryCase(on, level, kind, freshSeed());
    if (typeof made !== "string") return made.case;
    // Other requests are served between two attempts.
    await new Promise((resolve) => setImmediate(resolve));
  }
  return null;
}

/** Attempts with different seeds, because a circuit may have something to ask with another seed. */
const triesEach = 4;

/** A question of a lesson on some circuit of the shelf. */
export async function sampleExercise(item: string): Promise<{
  readonly rowId: string;
  readonly seed: number;
  readonly exercise: Exercise;
  readonly on: PracticeCircuit;
} | null> {
  const circuits = await listCircuits();
  const first = circuits.length > 0 ? randomInt(circuits.length) : 0;
  for (let i = 0; i < circuits.length; i++) {
    const rowId = circuits[(first + i) % circuits.length]?.rowId ?? "";
    const on = await practiceCircuitAt(rowId);
    for (let tries = 0; tries < triesEach; tries++) {
      const seed = freshSeed();
      const exercise = exerciseOn(item, on, seed);
      if (exercise) return { rowId, seed, exercise, on };
    }
  }
  return null;
}
