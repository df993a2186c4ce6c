import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, jest, test } from "@jest/globals";
import { WorkerThread } from "./workerThread.server";

interface Task {
  readonly id: number;
  readonly count: number;
}
type News = { readonly id: number; readonly step: number; readonly last: boolean };

let folder = "";
let file = "";

/** A thread that counts up to the number it is given, and dies of a negative one. */
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "airway-thread-"));
  file = join(folder, "counter.mjs");
  writeFileSync(
    file,
    `import { parentPort } from "node:worker_threads";
     parentPort.on("message", ({ id, count }) => {
       if (count < 0) throw new Error("below nothing");
       for (let step = 1; step <= count; step++) parentPort.postMessage({ id, step, last: step === count });
     });`,
  );
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("every task gets its own messages in order, up to its last", async () => {
  const thread = new WorkerThread<Task, News>(file, () => {});
  const heard = async (count: number): Promise<number[]> => {
    const steps: number[] = [];
    await thread.ask({ count }, ({ step, last }) => {
      steps.push(step);
      return last;
    });
    return steps;
  };
  expect(await Promise.all([heard(3), heard(1), heard(2)])).toEqual([[1, 2, 3], [1], [1, 2]]);
});

test("a refused message refuses only its own task", async () => {
  const thread = new WorkerThread<Task, News>(file, () => {});
  const refused = thread.ask({ count: 3 }, () => {
    throw new Error("not this one");
  });
  const other = thread.ask({ count: 2 }, ({ last }) => last);
  await expect(refused).rejects.toThrow("not this one");
  await expect(other).resolves.toBeUndefined();
});

test("a thread that dies refuses all waiting tasks, and reports it once", async () => {
  const ended = jest.fn();
  const thread = new WorkerThread<Task, News>(file, ended);
  const waits = [thread.ask({ count: -1 }, () => true), thread.ask({ count: 1 }, () => false)];
  for (const wait of waits) await expect(wait).rejects.toThrow("below nothing");
  expect(ended).toHaveBeenCalledTimes(1);
});
