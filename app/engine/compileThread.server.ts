import { existsSync } from "node:fs";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { reportTrouble } from "../shell/log.server";
import { WorkerThread } from "../shell/workerThread.server";
import { type CompileTables, compileHere } from "./engine.server";
import type { EngineNews, EngineTask } from "./engineWorker";

/**
 * Solves tables in worker threads, one circuit at a time, so that other requests are served meanwhile. Each thread ends when its
 * circuit is done, which frees its memory.
 * @returns null if the worker's file does not exist
 */
export function compileOn(file: string): CompileTables | null {
  if (!existsSync(file)) return null;
  let last: Promise<unknown> = Promise.resolve();
  return (compiled) => {
    // If the thread dies, that is reported and the work is done here, more slowly.
    const turn = last.then(() => compileThere(file, compiled).catch(() => compileHere(compiled)));
    // One circuit that cannot be compiled does not stop the next one.
    last = turn.catch(() => undefined);
    return turn;
  };
}

async function compileThere(file: string, compiled: CompiledCircuit): Promise<void> {
  const thread = new WorkerThread<EngineTask, EngineNews>(file, (cause) =>
    reportTrouble(
      cause,
      "The part of Airway that prepares circuits has stopped once. Nothing is lost; the circuit was prepared another way.",
    ),
  );
  const setups = compiled.usualSetups();
  try {
    await thread.ask({ circuit: compiled.netlist.circuit }, (news) => {
      if ("problem" in news) throw new Error(news.problem);
      const setup = "parts" in news ? setups[news.setup] : undefined;
      if ("parts" in news && setup) compiled.table(setup).adopt(news.parts);
      return "ready" in news;
    });
  } finally {
    await thread.end();
  }
}
