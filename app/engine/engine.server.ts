import { existsSync } from "node:fs";
import type { Circuit } from "@core/circuit/circuit";
import type { DiagnoseOptions } from "@core/diagnose/diagnose";
import { completeColumns } from "@core/diagnose/tests/candidateTests";
import { allTools } from "@core/predict/observations/observation";
import type { Reading } from "@core/predict/reading";
import { CircuitCache } from "@core/predict/tables/circuitCache";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";
import { breath, inSlices, requestsFirst } from "../shell/turnTaking.server";
import { WorkerThread } from "../shell/workerThread.server";
import type { EngineNews, EngineTask } from "./engineWorker";

const circuitsKept = 20;
const cache = new CircuitCache(circuitsKept);
const readying = new WeakMap<CompiledCircuit, Promise<CompiledCircuit>>();

type Thread = WorkerThread<EngineTask, EngineNews>;

/** The thread circuits are made ready on, and looked ahead with; null where there is none, and this one does it. */
let ahead: Thread | null = null;

/** Lets circuits be made ready on a thread of their own. */
export function workAheadOn(file: string): void {
  if (!existsSync(file)) return;
  ahead ??= new WorkerThread(file, () => {
    ahead = null;
  });
}

/** What the thread calls each circuit it was given. */
const names = new WeakMap<CompiledCircuit, number>();
let lastName = 0;

async function prepareOn(thread: Thread, compiled: CompiledCircuit): Promise<void> {
  const name = ++lastName;
  await thread.ask({ name, circuit: compiled.netlist.circuit }, (news) => {
    if ("problem" in news) throw new Error(news.problem);
    if ("parts" in news) {
      const setup = compiled.usualSetups()[news.setup];
      if (setup) compiled.table(setup).adopt(news.parts);
    }
    return "ready" in news;
  });
  // Only what is ready there is asked of it.
  names.set(compiled, name);
}

/** The bytes of what some readings would mean, worked out without holding this thread up; null where only this one can. */
export async function diagnoseAside(
  compiled: CompiledCircuit,
  readings: readonly Reading[],
  options: DiagnoseOptions,
): Promise<Uint8Array | null> {
  const name = names.get(compiled);
  if (!ahead || name === undefined) return null;
  let found: Uint8Array | null = null;
  const task = { name, readings, options };
  // A circuit forgotten there, or a thread that died, leaves the work to this one.
  await ahead
    .ask(task, (news) => {
      if ("diagnosis" in news) found = news.diagnosis;
      return true;
    })
    .catch(() => undefined);
  return found;
}

/** Works out what every suspect shows at every look, once a circuit is ready: no reading has to wait for it. */
const fillColumns = (compiled: CompiledCircuit): Promise<void> =>
  inSlices(completeColumns(compiled, allTools), requestsFirst);

async function prepareHere(compiled: CompiledCircuit): Promise<void> {
  for (const setup of compiled.usualSetups()) {
    await breath();
    compiled.table(setup).complete();
  }
}

async function prepare(compiled: CompiledCircuit): Promise<CompiledCircuit> {
  // A worker that died leaves the work to this thread: slower, and answered all the same.
  if (ahead) await prepareOn(ahead, compiled).catch(() => prepareHere(compiled));
  else await prepareHere(compiled);
  return compiled;
}

/**
 * A circuit made ready for diagnosis, other requests being served meanwhile; once for each circuit. Throws
 * when the solver does not know one of its parts.
 */
export function engineFor(circuit: Circuit): Promise<CompiledCircuit> {
  const compiled = cache.compile(circuit);
  if (!compiled.ok) throw new Error(compiled.problems.map(problemText).join("; "));
  const known = readying.get(compiled.value);
  if (known) return known;
  const made = prepare(compiled.value);
  readying.set(compiled.value, made);
  // The other thread fills its own; a failure is answered where the circuit is asked for.
  made.then((own) => (names.has(own) ? undefined : fillColumns(own))).catch(() => undefined);
  return made;
}
