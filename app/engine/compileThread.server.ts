import { existsSync } from "node:fs";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { reportTrouble } from "../shell/log.server";
import { WorkerThread } from "../shell/workerThread.server";
import { type CompileTables, compileHere } from "./engine.server";
import type { EngineNews, EngineTask } from "./engineWorker";

/**
 * Solves tables on threads of their own, so that other requests are served meanwhile: one circuit after another, each on a
 * thread that ends when it is done and gives all its memory back. Where there is no such file, none.
 */
export function compileOn(file: string): CompileTables | null {
  if (!existsSync(file)) return null;
  let last: Promise<unknown> = Promise.resolve();
  return (compiled) => {
    // A thread that died is reported; the work is done here, slower.
    const turn = last.then(() => compileThere(file, compiled).catch(() => compileHere(compiled)));
    last = turn;
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
