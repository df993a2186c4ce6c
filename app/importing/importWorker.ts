// Does tasks on files from elsewhere in a process of its own, which ends when the server does.
import type { DoTask, ImportNews, ImportOrder, ImportTaskName } from "./importTask";
import { importTasks } from "./importTasks.server";

/** Sends news to the server; exits if the server is gone. */
const say = (news: ImportNews): void =>
  void process.send?.(news, undefined, {}, (lost) => {
    if (lost) process.exit();
  });

async function follow({ id, task, takes }: ImportOrder): Promise<void> {
  // An order holds the input of its own task.
  const work = importTasks[task] as DoTask<ImportTaskName>;
  try {
    say({ id, came: await work(takes, (share) => say({ id, share })) });
  } catch (thrown) {
    say({ id, came: { problems: [thrown instanceof Error ? thrown.message : String(thrown)] } });
  }
}

process.on("message", (order: ImportOrder) => void follow(order));
process.on("disconnect", () => process.exit());
