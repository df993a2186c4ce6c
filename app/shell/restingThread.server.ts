import { WorkerThread } from "./workerThread.server";

/** Milliseconds after which an idle thread usually ends, which frees its memory. */
const usualRestMilliseconds = 5000;

/** A worker thread that only exists while there is work for it. */
export class RestingThread<Task extends { readonly id: number }, News extends { readonly id: number }> {
  private thread: WorkerThread<Task, News> | null = null;
  private idle: ReturnType<typeof setTimeout> | undefined;
  private atWork = 0;

  /**
   * @param onEnd called with the error each time the thread dies
   * @param restMilliseconds after which an idle thread ends
   */
  constructor(
    private readonly file: string,
    private readonly onEnd: (cause: unknown) => void,
    private readonly restMilliseconds = usualRestMilliseconds,
  ) {}

  /** Gives the thread a task, as `WorkerThread.ask` does; after a failed task the next one gets a new thread. */
  async ask(...asked: Parameters<WorkerThread<Task, News>["ask"]>): Promise<void> {
    clearTimeout(this.idle);
    this.thread ??= new WorkerThread(this.file, this.onEnd);
    this.atWork += 1;
    try {
      await this.thread.ask(...asked);
    } catch (cause) {
      this.end();
      throw cause;
    } finally {
      this.atWork -= 1;
    }
    if (this.atWork === 0) this.idle = setTimeout(() => this.end(), this.restMilliseconds).unref();
  }

  private end(): void {
    void this.thread?.end();
    this.thread = null;
  }
}
