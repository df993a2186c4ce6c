import { existsSync } from "node:fs";
import type { Circuit } from "@core/circuit/circuit";
import { CircuitCache } from "@core/predict/tables/circuitCache";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { problemText } from "@core/problem/problem";
import { reportTrouble } from "../shell/log.server";
import { WorkerThread } from "../shell/workerThread.server";
import type { EngineNews, EngineTask } from "./engineWorker";

/** Compiled circuits kept in memory. */
const circuitsKept = 20;
const cache = new CircuitCache(circuitsKept);
const compiling = new WeakMap<CompiledCircuit, Promise<CompiledCircuit>>();

/** The thread circuits are compiled on; null where there is none, and requests compile their own. */
let thread: WorkerThread<EngineTask, EngineNews> | null = null;

/** Lets circuits be compiled on a thread of their own. */
export function compileOn(file: string): void {
  if (!existsSync(file)) return;
  thread ??= new WorkerThread(file, (cause) => {
    thread = null;
    reportTrouble(
      cause,
      "The part of Airway that prepares circuits has stopped. Nothing is lost, but opening a circuit takes longer until Airway is restarted.",
    );
  });
}

async function compileThere(
  on: WorkerThread<EngineTask, EngineNews>,
  compiled: CompiledCircuit,
): Promise<void> {
  const setups = compiled.usualSetups();
  await on.ask({ circuit: compiled.netlist.circuit }, (news) => {
    if ("problem" in news) throw new Error(news.problem);
    const setup = "parts" in news ? setups[news.setup] : undefined;
    if ("parts" in news && setup) compiled.table(setup).adopt(news.parts);
    return "ready" in news;
  });
}

function compileHere(compiled: CompiledCircuit): void {
  for (const setup of compiled.usualSetups()) compiled.table(setup).complete();
}

async function compile(compiled: CompiledCircuit): Promise<CompiledCircuit> {
  // A thread that died has been reported; the work is done here, slower.
  if (thread) await compileThere(thread, compiled).catch(() => compileHere(compiled));
  else compileHere(compiled);
  return compiled;
}

/**
 * A circuit compiled for diagnosis, once for each circuit, while other requests are served. Throws when the solver does not
 * know one of its parts.
 */
export function engineFor(circuit: Circuit): Promise<CompiledCircuit> {
  const compiled = cache.compile(circuit);
  if (!compiled.ok) throw new Error(compiled.problems.map(problemText).join("; "));
  const known = compiling.get(compiled.value);
  if (known) return known;
  const made = compile(compiled.value);
  compiling.set(compiled.value, made);
  return made;
}
