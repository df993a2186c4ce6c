import { existsSync } from "node:fs";
import { engineThread } from "../engine/compileThread.server";
import { engineFor } from "../engine/engine.server";
import type { WhatIsNext } from "../engine/engineWorker";
import { diagnoseOptions, diagnosisOf } from "../job/diagnosis.server";
import { activeReadings, type JobFacts } from "../job/jobView.server";

/** Works out what comes next in a job. */
type WorkOut = (facts: JobFacts) => Promise<WhatIsNext>;

/** Works it out in this thread. */
async function here(facts: JobFacts): Promise<WhatIsNext> {
  const { verdict, next } = diagnosisOf({ ...facts, engine: await engineFor(facts.circuit) });
  return { verdict, test: next[0]?.test ?? null };
}

const stopped =
  "The background process that works out the next tests for the board stopped once. Nothing is lost: the next test was worked out on the main process instead.";

let workOut: WorkOut = here;

/**
 * From now on works it out in a thread of its own, so that no page waits for it; nothing changes if the thread's file
 * does not exist.
 */
export function workOutOn(file: string): void {
  if (!existsSync(file)) return;
  const thread = engineThread(file, stopped);
  workOut = async (facts) => {
    let found: WhatIsNext | null = null;
    const task = {
      does: "diagnose",
      circuit: facts.circuit,
      readings: activeReadings(facts),
      options: diagnoseOptions(facts),
    } as const;
    await thread
      .ask(task, (news) => {
        if ("problem" in news) throw new Error(news.problem);
        if ("next" in news) found = news.next;
        return "next" in news;
      })
      .catch(() => undefined);
    // If the thread dies, the error is logged and the work is done in this process, while pages wait.
    return found ?? here(facts);
  };
}

/** The verdict of a job, and the test to do next. */
export const whatIsNext: WorkOut = (facts) => workOut(facts);
