import { existsSync } from "node:fs";
import type { Circuit } from "@core/circuit/circuit";
import type { CarriedReadings } from "@core/wiring/carriedReadings";
import type { LearnedCircuit } from "@core/wiring/learnedCircuit";
import type { PlaceReading } from "@core/wiring/placeReading";
import type { SeenCar } from "@core/wiring/seenCar";
import { reportTrouble } from "../shell/log.server";
import { RestingThread } from "../shell/restingThread.server";
import type { SeenDiagnosis } from "./seenDiagnosis";
import { doSeenTask, type SeenFacts, type SeenNews, type SeenTask } from "./seenTask";

type Asked = SeenTask extends infer Task ? (Task extends unknown ? Omit<Task, "id"> : never) : never;

const stopped =
  "The background process that diagnoses vehicles without a diagram stopped once. Nothing is lost: the work was done on the main process instead.";

/** The thread stays so long after its last task, because making the wirings ready takes seconds. */
const restMilliseconds = 20 * 60_000;

let threaded = false;
let ask = (task: Asked): Promise<SeenNews> => Promise.resolve(doSeenTask({ ...task, id: 0 }));

/**
 * From now on vehicles without a diagram are diagnosed in a thread of its own, so that no page waits for it; nothing
 * changes if the thread's file does not exist.
 */
export function diagnoseSeenOn(file: string): void {
  if (!existsSync(file)) return;
  const here = ask;
  const thread = new RestingThread<SeenTask, SeenNews>(
    file,
    (cause) => reportTrouble(cause, stopped),
    restMilliseconds,
  );
  threaded = true;
  ask = async (task) => {
    let found: SeenNews | null = null;
    await thread
      .ask(task, (news) => {
        found = news;
        return true;
      })
      .catch(() => undefined);
    if (found || task.does === "prepare") return found ?? { id: 0, ready: true };
    // If the thread dies, the error is logged and the work is done in this process, while pages wait.
    return here(task);
  };
}

/** Diagnoses a job without a diagram. */
export async function diagnoseSeen(facts: SeenFacts): Promise<SeenDiagnosis> {
  const news = await ask({ does: "diagnose", ...facts });
  if ("diagnosis" in news) return news.diagnosis;
  throw new Error("problem" in news ? news.problem : "the thread answered another task");
}

/**
 * Compiles the ways a vehicle may be wired while the person is still entering the complaint. Best effort: without a
 * thread, or if it fails, the first diagnosis takes a few seconds longer.
 */
export function prepareSeen(seen: SeenCar): void {
  if (!threaded) return;
  const readings = Array.from(
    { length: seen.speeds ?? 0 },
    (_, at): PlaceReading => ({
      test: "airflow",
      key: "run",
      heard: true,
      setting: String(at + 1),
      seen: "none",
    }),
  );
  void ask({ does: "prepare", seen, readings, options: {} });
}

/** The readings of a job without a diagram in the terms of a circuit whose diagram was found after all. */
export async function carrySeen(facts: SeenFacts, circuit: Circuit): Promise<CarriedReadings> {
  const news = await ask({ does: "carry", ...facts, circuit });
  if ("carried" in news) return news.carried;
  throw new Error("problem" in news ? news.problem : "the thread answered another task");
}

/** The circuit that the readings of a job without a diagram tell of. */
export async function learnSeen(
  facts: SeenFacts,
  identity: { readonly id: string; readonly title: string },
): Promise<LearnedCircuit> {
  const news = await ask({ does: "learn", ...facts, identity });
  if ("learned" in news) return news.learned;
  throw new Error("problem" in news ? news.problem : "the thread answered another task");
}
