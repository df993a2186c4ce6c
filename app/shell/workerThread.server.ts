import { Worker } from "node:worker_threads";

interface Numbered {
  readonly id: number;
}

/** A task before it has its number. */
type Unnumbered<Task> = Task extends unknown ? Omit<Task, "id"> : never;

interface Asked<News> {
  /**
   * Takes a message; true if it was the last.
   * @throws to refuse
   */
  readonly take: (news: News) => boolean;
  readonly resolve: () => void;
  readonly reject: (problem: unknown) => void;
}

/** A thread that takes tasks and answers each with messages under its number; it does not keep the process alive. */
export class WorkerThread<Task extends Numbered, News extends Numbered> {
  private readonly worker: Worker;
  private readonly asked = new Map<number, Asked<News>>();
  private last = 0;

  /** @param onEnd called once, with the cause, when the thread died; waiting callers are refused */
  constructor(file: string, onEnd: (cause: unknown) => void) {
    this.worker = new Worker(file);
    this.worker.on("message", (news: News) => void this.hear(news));
    this.worker.on("error", (cause) => {
      onEnd(cause);
      for (const { reject } of this.asked.values()) reject(cause);
      this.asked.clear();
    });
    // Only now, because listening for messages makes the thread keep the process alive again.
    this.worker.unref();
  }

  /** Gives the thread a task; resolves when `take` has called a message the last. */
  ask(task: Unnumbered<Task>, take: (news: News) => boolean): Promise<void> {
    const id = ++this.last;
    return new Promise((resolve, reject) => {
      this.asked.set(id, { take, resolve, reject });
      this.worker.postMessage({ ...task, id });
    });
  }

  /** Ends the thread and frees its memory. */
  async end(): Promise<void> {
    await this.worker.terminate();
  }

  private hear(news: News): void {
    const asked = this.asked.get(news.id);
    if (!asked) return;
    try {
      if (!asked.take(news)) return;
      asked.resolve();
    } catch (problem) {
      asked.reject(problem);
    }
    this.asked.delete(news.id);
  }
}
