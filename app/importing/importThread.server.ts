import { existsSync } from "node:fs";
import { reportTrouble } from "../shell/log.server";
import { WorkerThread } from "../shell/workerThread.server";
import type { Came, ImportNews, ImportOrder, ImportTaskName, ImportTasks } from "./importTask";
import { importTasks } from "./importTasks.server";

/** Does tasks on files from elsewhere, one after another. */
export interface Importer {
  run<Name extends ImportTaskName>(
    task: Name,
    takes: ImportTasks[Name]["takes"],
    onShare?: (share: number) => void,
  ): Promise<Came<Name>>;
  /** Stops the task under way, and gives the memory back. */
  end(): void;
}

/** Nothing that fits the limits takes longer than this, by far. */
const longestMilliseconds = 15 * 60_000;

let workerFile: string | null = null;

/** Says where the built worker lies; without one, tasks are done in the server's own thread. */
export function importOn(file: string): void {
  workerFile = existsSync(file) ? file : null;
}

/** Someone to give tasks to. */
export const importer = (): Importer => (workerFile ? new ThreadImporter(workerFile) : here);

const here: Importer = {
  run: (task, takes, onShare = () => {}) => importTasks[task](takes, onShare),
  end() {},
};

class ThreadImporter implements Importer {
  private readonly thread: WorkerThread<ImportOrder, ImportNews>;
  private stop: (() => void) | null = null;

  constructor(file: string) {
    this.thread = new WorkerThread(file, (cause) =>
      reportTrouble(cause, "Reading an imported file failed. Nothing was imported."),
    );
  }

  async run<Name extends ImportTaskName>(
    task: Name,
    takes: ImportTasks[Name]["takes"],
    onShare: (share: number) => void = () => {},
  ): Promise<Came<Name>> {
    let came: Came<Name> = { problems: ["The import was stopped."] };
    const stopped = new Promise<void>((resolve) => {
      this.stop = resolve;
    });
    const late = setTimeout(() => {
      came = { problems: ["The import took longer than 15 minutes and was stopped."] };
      this.end();
    }, longestMilliseconds);
    const asked = this.thread.ask({ task, takes }, (news) => {
      if ("share" in news) onShare(news.share);
      // A task is answered with its own kind of answer.
      else came = news.came;
      return "came" in news;
    });
    await Promise.race([asked, stopped]).finally(() => clearTimeout(late));
    return came;
  }

  end(): void {
    void this.thread.end();
    this.stop?.();
  }
}
