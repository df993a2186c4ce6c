import { existsSync } from "node:fs";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { reportTrouble } from "../shell/log.server";
import { RestingThread } from "../shell/restingThread.server";
import { type CompileTables, compileHere } from "./engine.server";
import type { EngineNews, EngineTask } from "./engineWorker";

/** The thread that compiles circuits; if it dies, every page says so in these words. */
export const engineThread = (file: string, words: string): RestingThread<EngineTask, EngineNews> =>
  new RestingThread(file, (cause) => reportTrouble(cause, words));

const compilingStopped =
  "The background process that prepares circuits stopped once. Nothing is lost: the circuit was prepared on the main process instead.";

/**
 * Solves tables in a worker thread, one circuit at a time, so that other requests are served meanwhile.
 * @returns null if the worker's file does not exist
 */
export function compileOn(file: string): CompileTables | null {
  if (!existsSync(file)) return null;
  const thread = engineThread(file, compilingStopped);
  const compile = async (compiled: CompiledCircuit): Promise<void> => {
    const setups = compiled.usualSetups();
    await thread.ask({ does: "compile", circuit: compiled.netlist.circuit }, (news) => {
      if ("problem" in news) throw new Error(news.problem);
      const setup = "parts" in news ? setups[news.setup] : undefined;
      if ("parts" in news && setup) compiled.table(setup).adopt(news.parts);
      return "ready" in news;
    });
  };
  let last: Promise<unknown> = Promise.resolve();
  return (compiled, isWanted) => {
    const turn = last.then(() => {
      if (!isWanted()) throw new Error("nobody waits for this circuit any more");
      // If the thread dies, the error is logged and the work is done in this process, more slowly.
      return compile(compiled).catch(() => compileHere(compiled));
    });
    // A circuit that cannot be compiled does not stop the next one.
    last = turn.catch(() => undefined);
    return turn;
  };
}
