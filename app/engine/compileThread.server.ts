import { existsSync } from "node:fs";
import type { CompiledCircuit } from "@core/predict/tables/compiledCircuit";
import { reportTrouble } from "../shell/log.server";
import { WorkerThread } from "../shell/workerThread.server";
import { type CompileTables, compileHere } from "./engine.server";
import type { EngineNews, EngineTask } from "./engineWorker";

/** A thread with nothing to do ends after this, which gives its memory back. */
const idleMilliseconds = 5000;

/**
 * Solves tables in a worker thread, one circuit at a time, so that other requests are served meanwhile.
 * @returns null if the worker's file does not exist
 */
export function compileOn(file: string): CompileTables | null {
  if (!existsSync(file)) return null;
  const compiler = new Compiler(file);
  let last: Promise<unknown> = Promise.resolve();
  return (compiled) => {
    // If the thread dies, that is reported and the work is done here, more slowly.
    const turn = last.then(() => compiler.compile(compiled).catch(() => compileHere(compiled)));
    // One circuit that cannot be compiled does not stop the next one.
    last = turn.catch(() => undefined);
    return turn;
  };
}

/** A thread that is there while there is work for it. */
class Compiler {
  private thread: WorkerThread<EngineTask, EngineNews> | null = null;
  private idle: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly file: string) {}

  async compile(compiled: CompiledCircuit): Promise<void> {
    clearTimeout(this.idle);
    this.thread ??= this.begin();
    const setups = compiled.usualSetups();
    try {
      await this.thread.ask({ circuit: compiled.netlist.circuit }, (news) => {
        if ("problem" in news) throw new Error(news.problem);
        const setup = "parts" in news ? setups[news.setup] : undefined;
        if ("parts" in news && setup) compiled.table(setup).adopt(news.parts);
        return "ready" in news;
      });
      this.idle = setTimeout(() => this.end(), idleMilliseconds).unref();
    } catch (cause) {
      this.end();
      throw cause;
    }
  }

  private begin(): WorkerThread<EngineTask, EngineNews> {
    return new WorkerThread(this.file, (cause) =>
      reportTrouble(
        cause,
        "The part of Airway that prepares circuits has stopped once. Nothing is lost; the circuit was prepared another way.",
      ),
    );
  }

  private end(): void {
    void this.thread?.end();
    this.thread = null;
  }
}
