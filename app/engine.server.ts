import { existsSync } from "node:fs";
import type { Circuit } from "@core/circuit/circuit";
import { completeColumns } from "@core/diagnose/candidateLooks";
import { problemText } from "@core/formats/problem";
import { CircuitCache } from "@core/predict/circuitCache";
import type { CompiledCircuit } from "@core/predict/compiledCircuit";
import { allTools } from "@core/predict/testModel";
import { breath, inSlices, requestsFirst } from "./turnTaking.server";
import type { CompileNews, CompileTask } from "./workers/compileWorker";
import { WorkerThread } from "./workers/workerThread.server";

const circuitsKept = 20;
const cache = new CircuitCache(circuitsKept);
const readying = new WeakMap<CompiledCircuit, Promise<CompiledCircuit>>();

/** The thread circuits are made ready on; null where there is none, and they are made ready on this one. */
let compiler: WorkerThread<CompileTask, CompileNews> | null = null;

/** Lets circuits be made ready on a thread of their own. */
export function compileOnWorker(file: string): void {
  if (!existsSync(file)) return;
  compiler ??= new WorkerThread(file, () => {
    compiler = null;
  });
}

const prepareOn = (
  thread: WorkerThread<CompileTask, CompileNews>,
  compiled: CompiledCircuit,
): Promise<void> =>
  thread.ask({ circuit: compiled.netlist.circuit }, (news) => {
    if ("problem" in news) throw new Error(news.problem);
    if ("done" in news) return true;
    const setup = compiled.usualSetups()[news.setup];
    if (setup) compiled.table(setup).adopt(news.parts);
    return false;
  });

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
  if (compiler) await prepareOn(compiler, compiled).catch(() => prepareHere(compiled));
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
  // A failure is answered where the circuit is asked for.
  made.then(fillColumns).catch(() => undefined);
  return made;
}
