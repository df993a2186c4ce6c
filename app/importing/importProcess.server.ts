import { type ChildProcess, fork } from "node:child_process";
import { existsSync } from "node:fs";
import { reportTrouble } from "../shell/log.server";
import type { Came, ImportNews, ImportOrder, ImportTaskName, ImportTasks } from "./importTask";
import { importTasks } from "./importTasks.server";

/** Does tasks on files from elsewhere, one after another. */
export interface Importer {
  run<Name extends ImportTaskName>(
    task: Name,
    takes: ImportTasks[Name]["takes"],
    onShare?: (share: number) => void,
  ): Promise<Came<Name>>;
  /** Stops the current task and gives the memory back. */
  end(): void;
}

/** Milliseconds no task within the limits comes near to. */
const longestMilliseconds = 15 * 60_000;

let workerFile: string | null = null;

/** Sets where the built worker is; without one, tasks run in the server's own process. */
export function importOn(file: string): void {
  workerFile = existsSync(file) ? file : null;
}

/** Someone to give tasks to. */
export const importer = (): Importer => (workerFile ? new ProcessImporter(workerFile) : here);

const here: Importer = {
  run: (task, takes, onShare = () => {}) => importTasks[task](takes, onShare),
  end() {},
};

/**
 * Runs the tasks in a child process. A worker thread is not safe here: ending one during an SQLite call crashes the
 * whole server.
 */
class ProcessImporter implements Importer {
  private readonly child: ChildProcess;
  /** Why the process was ended on purpose; null otherwise. */
  private endedBecause: string | null = null;
  private asked = 0;

  constructor(file: string) {
    this.child = fork(file, { serialization: "advanced", stdio: ["ignore", "inherit", "inherit", "ipc"] });
    // It ends with the server, and does not keep the server from ending.
    this.child.unref();
    this.child.channel?.unref();
  }

  run<Name extends ImportTaskName>(
    task: Name,
    takes: ImportTasks[Name]["takes"],
    onShare: (share: number) => void = () => {},
  ): Promise<Came<Name>> {
    const { child } = this;
    const id = ++this.asked;
    return new Promise<Came<Name>>((resolve, reject) => {
      const late = setTimeout(
        () => this.end("The import took longer than 15 minutes and was stopped."),
        longestMilliseconds,
      );
      const hear = (news: ImportNews): void => {
        if (news.id !== id) return;
        if ("share" in news) {
          onShare(news.share);
          return;
        }
        leave();
        resolve(news.came);
      };
      const end = (code: number | null, signal: string | null): void => {
        leave();
        if (this.endedBecause !== null) {
          resolve({ problems: [this.endedBecause] });
          return;
        }
        const cause = new Error(`the import process ended with ${signal ?? code}`);
        reportTrouble(cause, "Reading an imported file failed. Nothing was imported.");
        reject(cause);
      };
      const leave = (): void => {
        clearTimeout(late);
        child.off("message", hear).off("exit", end);
      };
      if (child.exitCode !== null || child.signalCode !== null) {
        end(child.exitCode, child.signalCode);
        return;
      }
      child.on("message", hear).on("exit", end);
      child.send({ id, task, takes } satisfies ImportOrder);
    });
  }

  end(because = "The import was stopped."): void {
    this.endedBecause ??= because;
    this.child.kill("SIGKILL");
  }
}
