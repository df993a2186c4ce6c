import { existsSync } from "node:fs";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { reportTrouble } from "../shell/log.server";
import { WorkerThread } from "../shell/workerThread.server";
import { type CompileTables, compileHere } from "./engine.server";
import type { EngineNews, EngineTask } from "./engineWorker";

/** Solves tables on a thread of their own, so that other requests are served meanwhile. Where there is no such file, none. */
export function compileOn(file: string): CompileTables | null {
  if (!existsSync(file)) return null;
  let thread: WorkerThread<EngineTask, EngineNews> | null = new WorkerThread(file, (cause) => {
    thread = null;
    reportTrouble(
      cause,
      "The part of Airway that prepares circuits has stopped. Nothing is lost, but opening a circuit takes longer until Airway is restarted.",
    );
  });
  return async (compiled) => {
    // A thread that died has been reported; the work is done here, slower.
    await (thread
      ? compileThere(thread, compiled).catch(() => compileHere(compiled))
      : compileHere(compiled));
  };
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
