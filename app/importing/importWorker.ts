import { parentPort } from "node:worker_threads";
import type { DoTask, ImportNews, ImportOrder, ImportTaskName } from "./importTask";
import { importTasks } from "./importTasks.server";

const say = (news: ImportNews): void => parentPort?.postMessage(news);

async function follow({ id, task, takes }: ImportOrder): Promise<void> {
  // An order carries what its own task takes.
  const work = importTasks[task] as DoTask<ImportTaskName>;
  try {
    say({ id, came: await work(takes, (share) => say({ id, share })) });
  } catch (thrown) {
    say({ id, came: { problems: [thrown instanceof Error ? thrown.message : String(thrown)] } });
  }
}

parentPort?.on("message", (order: ImportOrder) => void follow(order));
