import { useCallback, useEffect, useRef, useState } from "react";
import { randomId } from "../text/randomId";
import type { RecordingNews, RecordingTask } from "./recordingWorker";

/** What the worker is doing. */
export type Working = { readonly share: number } | null;

/** Reads recordings on a thread of the browser; stopping ends the thread, and the next task starts a new one. */
export function useRecordingWorker() {
  const worker = useRef<Worker | null>(null);
  const refuse = useRef<((problem: Error) => void) | null>(null);
  const [working, setWorking] = useState<Working>(null);

  const stop = useCallback((): void => {
    worker.current?.terminate();
    worker.current = null;
    refuse.current?.(new Error("Stopped. Nothing was stored."));
    refuse.current = null;
    setWorking(null);
  }, []);
  useEffect(() => () => worker.current?.terminate(), []);

  /** Gives the worker a task; rejects with a message for the reader. */
  const ask = useCallback(
    async <T extends RecordingNews>(
      task: RecordingTask,
      moved: Transferable[] = [],
    ): Promise<Exclude<T, { share: number } | { problem: string }>> => {
      worker.current ??= new Worker(new URL("./recordingWorker.ts", import.meta.url), {
        type: "module",
      });
      const own = worker.current;
      setWorking({ share: 0 });
      try {
        return await new Promise((resolve, reject) => {
          refuse.current = reject;
          own.onmessage = ({ data: news }: MessageEvent<RecordingNews>) => {
            if ("share" in news) setWorking({ share: news.share });
            else if ("problem" in news) reject(new Error(news.problem));
            else resolve(news as Exclude<T, { share: number } | { problem: string }>);
          };
          own.onerror = () =>
            reject(
              new Error(
                "The recording could not be read, most likely because the browser ran out of memory.",
              ),
            );
          own.postMessage(task, moved);
        });
      } finally {
        refuse.current = null;
        setWorking(null);
      }
    },
    [],
  );
  return { ask, stop, working };
}

/** Stores a recording with the job; resolves once the server has it on disk. */
export async function storeRecording(
  jobId: number,
  record: unknown,
  kept: Float32Array | null,
): Promise<void> {
  const body = new FormData();
  body.set("id", randomId());
  body.set("record", JSON.stringify(record));
  body.set("samples", new File(kept ? [kept as Float32Array<ArrayBuffer>] : [], "samples"));
  const answer = await fetch(`/jobs/${jobId}/traces`, { method: "POST", body }).catch(() => null);
  if (answer?.ok) return;
  const told = answer?.status === 422 ? ((await answer.json()) as { problem: string }).problem : null;
  throw new Error(
    told ??
      "The recording was read but not saved, because the server did not answer. Try again when the server is back.",
  );
}
