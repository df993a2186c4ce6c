import { parentPort } from "node:worker_threads";
import { doSeenTask, type SeenNews, type SeenTask } from "./seenTask";

parentPort?.on("message", (task: SeenTask) => {
  try {
    parentPort?.postMessage(doSeenTask(task));
  } catch (thrown) {
    const news: SeenNews = {
      id: task.id,
      problem: thrown instanceof Error ? thrown.message : String(thrown),
    };
    parentPort?.postMessage(news);
  }
});
